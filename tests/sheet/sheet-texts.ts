/** Texts for the contact sheet: by slot, or by template and slot where its words are of their own kind. Other slots show their samples. */
export interface SheetText {
  readonly name: string;
  readonly slots: Readonly<Record<string, string>>;
}

export const sheetTexts: readonly SheetText[] = [
  { name: 'usual', slots: {} },
  { name: 'short', slots: { label: 'New', headline: 'Big Blow', line: '30 May', word: 'Ta', points: 'A coat\nA friend\nTime', person: 'Jo' } },
  {
    name: 'cruel',
    slots: {
      label: 'Letzte Plätze in der Drachenbauwerkstatt',
      headline: 'Drachenbaukurs für Einsteigerinnen und Einsteiger am Samstagnachmittag im alten Netzlager',
      line: 'Samstagnachmittag ab 14 Uhr, altes Netzlager am Hafen; Segel, Spieren und Schnur sind dabei.',
      word: 'Dankeschön',
      points: 'Windgeschwindigkeit prüfen: 8 bis 14 Knoten\nMit dem Rücken zum Wind stehen\nSchnur durch den Handschuh laufen lassen\nRückwärts gehen, nicht rennen\nVor dem Dunkelwerden einholen',
      person: 'Bartholomäus Oyelaran-Finkenstein',
    },
  },
];
