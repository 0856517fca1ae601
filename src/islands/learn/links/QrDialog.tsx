import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { getBrand } from '../../../contract/brand-contracts.ts';
import { contrastRatio } from '../../../core/colour/contrast.ts';
import { call } from '../../ui/call.ts';
import { buttonClasses } from '../../ui/Button.tsx';
import { ModalFrame } from '../../ui/ModalFrame.tsx';

/** A code that phones read needs this much between its dark and its light parts. */
const MIN_CONTRAST = 5;
const LIGHT = '#ffffff';
const PNG_PX = 1_024;

/** The QR code of a short link in one of the brand's own colours, as SVG and PNG. */
export function QrDialog({ link, brand, onClose }: { readonly link: { readonly code: string; readonly address: string }; readonly brand: string; readonly onClose: () => void }) {
  const book = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }) });
  // On white only dark colours can be read.
  const colours = (book.data?.book.colours ?? []).filter(({ hex }) => contrastRatio(hex, LIGHT) >= MIN_CONTRAST);
  const [chosen, setChosen] = useState<string | null>(null);
  const hex = chosen ?? colours[0]?.hex ?? '#000000';
  const [code, setCode] = useState<{ readonly svg: string; readonly png: string } | null>(null);
  useEffect(() => {
    let isOver = false;
    const options = { errorCorrectionLevel: 'M' as const, margin: 4, color: { dark: hex, light: LIGHT } };
    void import('qrcode').then(async ({ toDataURL, toString }) => {
      const [svg, png] = await Promise.all([toString(link.address, { ...options, type: 'svg' }), toDataURL(link.address, { ...options, width: PNG_PX })]);
      if (!isOver) setCode({ svg: `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`, png });
    });
    return () => {
      isOver = true;
    };
  }, [hex, link.address]);
  return (
    <ModalFrame title={`QR code of /l/${link.code}`} onClose={onClose}>
      <div className="grid grid-cols-[14rem_1fr] gap-5 max-sm:grid-cols-1">
        <div className="grid size-56 place-items-center rounded-md border border-line bg-tone-ink">{code && <img src={code.svg} alt={`A code that leads to ${link.address}`} className="size-full" />}</div>
        <div className="text-sm">
          <fieldset>
            <legend className="mb-1 font-semibold">Colour</legend>
            {[...colours.map((each) => [each.hex, each.name] as const), ['#000000', 'Black'] as const].map(([each, name]) => (
              <label key={each} className="flex items-center gap-2 py-0.5">
                <input type="radio" name="qr-colour" checked={hex === each} onChange={() => setChosen(each)} className="size-4 accent-house" />
                <span className="size-4 rounded-sm border border-line" style={{ background: each }} />
                {name}
              </label>
            ))}
          </fieldset>
          <p className="mt-2 text-xs text-quiet">Colours that a phone could not read on white are left out. Print it no smaller than 2 cm.</p>
          {code && (
            <p className="mt-4 flex gap-2">
              <a href={code.svg} download={`link-${link.code}.svg`} className={buttonClasses('primary')}>
                Download SVG
              </a>
              <a href={code.png} download={`link-${link.code}.png`} className={buttonClasses('plain')}>
                Download PNG
              </a>
            </p>
          )}
        </div>
      </div>
    </ModalFrame>
  );
}
