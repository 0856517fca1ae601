import { describe, expect, it } from 'vitest';
import { guessLanguage } from './guess-language.ts';

describe('guessLanguage', () => {
  it.each([
    ['Come with empty hands and go home with a kite.', 'en'],
    ['Am Samstag backen wir ab fünf Uhr Brot, und die Tür ist auf.', 'de'],
    ['Nous ouvrons l’atelier samedi, venez avec des amis et du thé.', 'fr'],
    ['El taller abre el sábado y hay té para todos los que vengan.', 'es'],
    ['A oficina abre no sábado e há chá para todos os que vierem com a família.', 'pt'],
    ['Merci beaucoup !', 'fr'],
    ['C’est où ?', 'fr'],
    ['¿Abren hoy?', 'es'],
    ['Gracias', 'es'],
    ['Quanto custa?', 'pt'],
    ['Obrigada!', 'pt'],
    ['Schönes Brot, danke', 'de'],
    ['Wo ist das?', 'de'],
    ['Love it', 'en'],
    ['It doesn’t fly', 'en'],
    ['Tack så mycket', null],
    ['Che bello!', null],
    ['Super!', null],
    ['Kite', null],
    ['', null],
    ['#KiteDay 🪁 https://a.example', null],
  ])('%s: %s', (text, language) => {
    expect(guessLanguage(text)).toBe(language);
  });
});
