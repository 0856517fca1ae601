/** What a maker would enter: by what a slot is for, whatever its template calls it. */
export interface CorpusContent {
  readonly name: string;
  /** Language of the texts, for what may be broken where. */
  readonly language: string;
  readonly label: string;
  readonly headline: string;
  readonly line: string;
  readonly points: readonly string[];
  /** A figure or an offer; a word that can stand by itself; a name. */
  readonly number: string;
  readonly word: string;
  readonly person: string;
  readonly picture: 'photo' | 'tiny' | 'none';
}

const usual: Omit<CorpusContent, 'name'> = {
  language: 'en',
  label: 'Saturday on the quay',
  headline: 'Build your own kite in an afternoon',
  line: 'The Old Net Loft, from 2 pm. Sails and string included.',
  points: ['Check the wind: 8 to 14 knots', 'Stand with your back to it', 'Let the line run, then stop it'],
  number: '312',
  word: 'Thank you',
  person: 'Ottoline Brack',
  picture: 'photo',
};
const content = (name: string, own: Partial<CorpusContent>): CorpusContent => ({ ...usual, ...own, name });

/** The forty contents that every template has to carry in every placement. */
export const contents: readonly CorpusContent[] = [
  content('usual', {}),
  content('short', { label: 'New', headline: 'Big Blow', line: '30 May', points: ['A coat', 'A friend', 'Time'], number: '7', word: 'Ta', person: 'Jo' }),
  content('one word', { label: 'Soon', headline: 'Wind', line: 'May', points: ['Up'], number: '1', word: 'Oh', person: 'Al' }),
  content('long', {
    label: 'Last places for build-a-kite',
    headline: 'Sail-making, bridle-tying and first flights for absolute beginners this Saturday',
    line: 'The Old Net Loft, Gullwick Quay, from two in the afternoon until the light goes.',
    points: ['Check the wind: 8 to 14 knots is what you want', 'Stand with your back to it, feet apart', 'Let the line run through a gloved hand', 'Stop it gently, never all at once', 'Walk backwards, do not run'],
    number: '£14.50',
    word: 'Much obliged',
    person: 'Bartholomew Oyelaran-Finch',
  }),
  content('three hundred characters', { headline: 'There is a moment, just after the line goes tight and just before the sail finds the wind, when nothing is decided yet: the kite may climb or it may turn its face into the sand, and everybody who has ever held a line knows that this moment, short as it is, is really what they came for today, friend.' }),
  content('long line', { line: 'Until Sunday 6 pm or until the last bench is taken, whichever comes first; not together with vouchers, and not for groups of more than nine.' }),
  content('seven points', { points: ['Wind', 'Back to it', 'Line', 'Stop', 'Walk', 'Masts', 'Wind it in'] }),
  content('long points', { points: ['Keep away from anything with a mast, a wire or a nervous dog anywhere near it', 'Wind it in while it still flies well, and before your hands are too cold to feel the reel', 'Tell somebody where you are'] }),
  content('empty line and label', { label: '', line: '' }),
  content('no picture', { picture: 'none' }),
  content('tiny picture', { picture: 'tiny' }),
  content('all capitals', { label: 'SATURDAY', headline: 'BUILD YOUR OWN KITE IN AN AFTERNOON', line: 'THE OLD NET LOFT, FROM 2 PM', word: 'THANK YOU', person: 'OTTOLINE BRACK' }),
  content('all small', { headline: 'build your own kite in an afternoon', line: 'the old net loft, from two', word: 'thank you' }),
  content('German compounds', {
    language: 'de',
    label: 'Drachenbauwerkstatt',
    headline: 'Drachenbaukurs für Einsteiger am Samstagnachmittag',
    line: 'Samstagnachmittag ab 14 Uhr, altes Netzlager am Hafen',
    points: ['Windgeschwindigkeit prüfen', 'Rückenwind suchen', 'Schnur laufen lassen'],
    word: 'Danke schön',
    person: 'Friedhelm Achterberg',
  }),
  content('a very long compound', { language: 'de', headline: 'Sicherheitsleinenbefestigung', line: 'Mit Windgeschwindigkeitsmessgerät' }),
  content('French punctuation', { language: 'fr', label: 'Samedi', headline: 'Prêts pour le grand vent ? Venez fabriquer votre cerf-volant !', line: 'À l’atelier : samedi à 14 h, « fil et toile » compris.', points: ['Le vent : 8 à 14 nœuds', 'Dos au vent !', 'Laissez filer ; arrêtez doucement'], word: 'Merci' }),
  content('Spanish', { language: 'es', headline: '¿Vienes a volar? ¡El sábado hay viento de sobra!', line: 'En el muelle, desde las dos de la tarde.', word: 'Gracias' }),
  content('Polish', { language: 'pl', headline: 'Zbuduj własny latawiec w jedno popołudnie', line: 'Źródło wiatru: nadbrzeże, sobota o czternastej.', word: 'Dziękuję', person: 'Świętosława Żółć' }),
  content('Turkish', { language: 'tr', headline: 'Bir öğleden sonrada kendi uçurtmanı yap', line: 'Cumartesi ikide, eski ağ deposunda.', word: 'Teşekkürler' }),
  content('Arabic', { language: 'ar', label: 'يوم السبت', headline: 'اصنع طائرتك الورقية في عصر يوم واحد', line: 'في المستودع القديم، من الساعة الثانية', points: ['تحقق من الريح', 'قف وظهرك إليها', 'دع الخيط يجري'], word: 'شكرا', person: 'ليلى الصباغ' }),
  content('Arabic with Latin and figures', { language: 'ar', headline: 'ورشة Gullwick يوم 28 نوفمبر', line: 'اتصل على 01632 960 184', word: 'شكرا' }),
  content('Hebrew', { language: 'he', label: 'יום שבת', headline: 'בנו עפיפון משלכם באחר צהריים אחד', line: 'במחסן הרשתות הישן, משעה שתיים', points: ['בדקו את הרוח', 'עמדו עם הגב אליה', 'תנו לחוט לרוץ'], word: 'תודה', person: 'נועה ברק' }),
  content('Japanese', { language: 'ja', label: '土曜日', headline: '午後のひとときで、自分だけの凧を作ろう', line: '古い網小屋にて、午後二時から。', points: ['風を確かめる', '風を背にして立つ', '糸を走らせてから止める'], word: '感謝', person: '佐藤かおり' }),
  content('Japanese, long', { language: 'ja', headline: '風がやんだ日の朝、砂丘の上で待っていた人たちのために、私たちは凧をもう一枚だけ縫いました。', line: '二十枚限定、番号入り。' }),
  content('Thai', { language: 'th', label: 'วันเสาร์', headline: 'ทำว่าวของคุณเองในบ่ายวันเดียว', line: 'ที่โรงเก็บอวนเก่า ตั้งแต่บ่ายสองโมง', points: ['ตรวจดูลม', 'ยืนหันหลังให้ลม', 'ปล่อยสายแล้วหยุด'], word: 'ขอบคุณ', person: 'สมหญิง ใจดี' }),
  content('Hindi', { language: 'hi', label: 'शनिवार', headline: 'एक दोपहर में अपनी पतंग खुद बनाइए', line: 'पुराने जाल घर में, दो बजे से', points: ['हवा देखिए', 'पीठ हवा की ओर', 'डोर को चलने दीजिए'], word: 'धन्यवाद', person: 'मीरा शर्मा' }),
  content('emoji', { label: 'Saturday 🪁', headline: 'Kites, wind and sandwiches 🪁🌬️🥪', line: 'Bring a coat 🧥 and a friend 👩🏽‍🤝‍👨🏻', points: ['Wind 💨', 'Line 🧵', 'Up ⬆️'], word: 'Thanks 💛' }),
  content('emoji alone', { headline: '🪁🪁🪁', line: '💨', word: '💛' }),
  content('a number leads', { headline: '40 kites, 9 sails and 1,204 metres of ripstop', number: '1,204 m' }),
  content('a price', { number: '£124.50', headline: 'Two-line stunt sled with reinforced edge' }),
  content('units', { headline: 'Wind 14 km/h, 8 °C, 20 % off until 6 pm', number: '−20%' }),
  content('a date', { label: 'November', headline: 'The year’s last night flight', line: '28 November 2026, 18:30', number: '28' }),
  content('an address', { headline: 'Find us behind the second dune', line: 'gullwickkites.example/afternoons · 01632 960 184' }),
  content('a long address', { line: 'https://gullwickkites.example/afternoons/november/last-places' }),
  content('quotation marks', { headline: '“It flew,” she said, ‘and then it came back.’', line: 'Heard on the quay — Tuesday' }),
  content('hyphens and dashes', { headline: 'Build-a-kite: three-hour, hands-on, wind-in-your-hair fun', line: 'Sat–Sun, 2–5 pm — rain or shine' }),
  content('one letter words', { headline: 'A kite is a sail I hold on a line', line: 'I do, and so can a child' }),
  content('line breaks', { headline: 'First the wind.\nThen the line.', line: 'Nothing else.\nReally.' }),
  content('facts', { line: 'Write to {handle} or see {site}', headline: 'Come and ask' }),
  content('double spaces and tabs', { headline: 'Too   many  spaces   here', line: 'And\ta tab' }),
];
