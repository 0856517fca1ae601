/** Puts the keyboard into the list of conversations. */
export function focusConversations(): void {
  document.querySelector<HTMLElement>('[role=listbox][aria-label=Conversations]')?.focus();
}
