/**
 * Keeps what somebody does before the script of a view is there.
 *
 * The server draws a view at once; its script comes later, on a slow machine seconds later. A press in between is made again
 * when the script is there, a shortcut's key too, and a field gets back what stood in it.
 */
import { KEYS_HEARD } from './keys-heard.ts';

/** What a press does something to. Links, checkboxes and disclosures work without a script. */
const PRESSABLE = 'button, [role="tab"]';
const FIELDS = 'input:not([type="file"]), select, textarea';

interface Control {
  readonly island: Element;
  readonly element: HTMLElement;
  /** Where it stands among the controls that look like it. */
  readonly place: number;
}

const waiting = new Map<Element, Control>();

interface Press extends Control {
  /** It began before the script was there. */
  readonly isTooEarly: boolean;
  /** What was pressed gave way to another element at this very press. */
  isReplaced: boolean;
}

let pressed: Press | null = null;

const isDrawnOnly = (island: Element): boolean => island.hasAttribute('ssr');

/** Controls of an island that are called and shaped alike: a view that has come to life may have put new elements in place of the drawn ones. */
function alike({ island, element }: Pick<Control, 'island' | 'element'>): readonly HTMLElement[] {
  return [...island.querySelectorAll<HTMLElement>(PRESSABLE)].filter(
    (other) => other.tagName === element.tagName && other.role === element.role && other.ariaLabel === element.ariaLabel && other.textContent === element.textContent,
  );
}

function controlAt(target: EventTarget | null): Control | null {
  const element = target instanceof Element ? target.closest<HTMLElement>(PRESSABLE) : null;
  const island = element?.closest('astro-island[client="load"]');
  return element && island ? { island, element, place: alike({ island, element }).indexOf(element) } : null;
}

const pressReplacement = (control: Control): void => alike(control)[control.place]?.click();

/** Presses a control whose script has just arrived. The click itself makes React finish a view that it has only begun. */
function pressAgain(control: Control): void {
  control.element.click();
  if (!control.element.isConnected) pressReplacement(control);
}

type Field = HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement;
type Typed = { readonly property: 'value'; readonly value: string } | { readonly property: 'checked'; readonly value: boolean };

/** What of a field differs from how the server drew it; null where nothing does. */
function typedInto(field: Field): Typed | null {
  if (field instanceof HTMLSelectElement) {
    const drawn = [...field.options].find(({ defaultSelected }) => defaultSelected) ?? field.options[0];
    return drawn && drawn.value !== field.value ? { property: 'value', value: field.value } : null;
  }
  if (field instanceof HTMLInputElement && (field.type === 'checkbox' || field.type === 'radio')) {
    return field.checked === field.defaultChecked ? null : { property: 'checked', value: field.checked };
  }
  return field.value === field.defaultValue ? null : { property: 'value', value: field.value };
}

/** Tells a view that has come to life what stood in its fields, as if it were typed now. */
function typeAgain(field: Field, { property, value }: Typed): void {
  const tell = (): void => ['input', 'change'].forEach((name) => field.dispatchEvent(new Event(name, { bubbles: true })));
  if (property === 'checked') {
    (field as HTMLInputElement).checked = !value;
    field.click();
    return;
  }
  // React finishes the view at the first event, and hears of a value only if it is set past React's own setter.
  tell();
  const prototype = field instanceof HTMLSelectElement ? HTMLSelectElement.prototype : field instanceof HTMLTextAreaElement ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  Reflect.set(prototype, property, value, field);
  tell();
}

addEventListener(
  'pointerdown',
  ({ target }) => {
    const control = controlAt(target);
    if (!control) return void (pressed = null);
    const press: Press = { ...control, isTooEarly: isDrawnOnly(control.island), isReplaced: false };
    pressed = press;
    // React finishes a view that it has only begun at this very event, and may replace what is being pressed.
    setTimeout(() => (press.isReplaced = !press.element.isConnected));
  },
  true,
);

addEventListener(
  'pointerup',
  () => {
    const press = pressed;
    setTimeout(() => {
      if (press && press === pressed && (press.isReplaced || (press.isTooEarly && !press.element.isConnected))) pressReplacement(press);
    });
  },
  true,
);

addEventListener(
  'click',
  (event) => {
    const control = controlAt(event.target);
    if (!control) return;
    const isTooEarly = isDrawnOnly(control.island) || (pressed?.isTooEarly === true && pressed.element === control.element);
    if (!isTooEarly || !event.isTrusted) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    pressed = null;
    if (isDrawnOnly(control.island)) waiting.set(control.island, control);
    else pressAgain(control);
  },
  true,
);

addEventListener(
  'astro:hydrate',
  ({ target }) => {
    if (!(target instanceof Element)) return;
    const typed = [...target.querySelectorAll<Field>(FIELDS)].flatMap((field) => {
      const value = typedInto(field);
      return value ? [{ field, value }] : [];
    });
    const control = waiting.get(target);
    waiting.delete(target);
    void (async () => {
      for (const { field, value } of typed) {
        typeAgain(field, value);
        // The next value builds on what the view made of this one.
        await new Promise((resolve) => setTimeout(resolve));
      }
      if (control) pressAgain(control);
    })();
  },
  true,
);

/** The last key that was pressed beside the fields before anything heard the shortcuts, and where. */
let earlyKey: { readonly key: string; readonly target: EventTarget } | null = null;

function keepKey({ key, target, ctrlKey, metaKey, altKey }: KeyboardEvent): void {
  const isShortcut = key.length === 1 && !ctrlKey && !metaKey && !altKey && target instanceof Element && !target.matches(FIELDS);
  earlyKey = isShortcut ? { key, target } : null;
}

const forgetKey = (): void => void (earlyKey = null);

addEventListener('keydown', keepKey, true);
addEventListener('pointerdown', forgetKey, true);
addEventListener(
  KEYS_HEARD,
  () => {
    removeEventListener('keydown', keepKey, true);
    removeEventListener('pointerdown', forgetKey, true);
    if (!earlyKey) return;
    const { key, target } = earlyKey;
    forgetKey();
    const at = target instanceof Element && target.isConnected ? target : document.body;
    at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  },
  { once: true },
);
