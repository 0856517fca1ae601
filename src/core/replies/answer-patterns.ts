import type { DeskLanguage } from '../write/language-pack.ts';
import type { Tone } from '../write/patterns/pattern.ts';

/** What a message does. */
export type Gesture = 'asks' | 'glad' | 'cross' | 'says';

type Lines = Readonly<Record<Gesture, Readonly<Partial<Record<Tone | 'any', readonly string[]>>>>>;

/** Short lines that claim nothing, by language, gesture and tone. */
export const shortLines: Readonly<Record<DeskLanguage, Lines>> = {
  en: {
    glad: {
      bright: ['You have just made our day!', 'Hooray, thank you!'],
      warm: ['That is kind of you, thank you.', 'Thank you, that means a lot here.'],
      calm: ['Thank you. We are glad.', 'Thank you for telling us.'],
      formal: ['Thank you for your kind words.', 'We are pleased to hear it.'],
      plain: ['Thank you!', 'Good to hear, thanks.'],
    },
    asks: {
      bright: ['Good question! We will find out and tell you.', 'Let us look that up for you.'],
      warm: ['Let us find that out for you.', 'Thank you for asking. We will look and tell you here.'],
      formal: ['Thank you for your question. We will answer it here.'],
      any: ['We will look that up and answer here.', 'Would you send us a message with a few more details?'],
    },
    cross: {
      warm: ['We are sorry about that. Would you send us a message, so that we can put it right?'],
      formal: ['We apologise for this. Please send us a message with the details.'],
      any: ['Sorry about that. Send us a message and we will look into it.', 'Thank you for telling us. We will look into it.'],
    },
    says: {
      bright: ['Ha, we like that!', 'Tell us more!'],
      warm: ['Thank you for writing.', 'It is good to hear from you.'],
      formal: ['Thank you for your message.'],
      any: ['Thanks for writing.', 'Thank you!'],
    },
  },
  de: {
    glad: { formal: ['Vielen Dank für die freundlichen Worte.'], any: ['Danke, das freut uns!', 'Vielen Dank!'] },
    asks: { formal: ['Danke für die Frage. Wir antworten hier.'], any: ['Wir schauen nach und schreiben es hier.', 'Schreiben Sie uns gern eine Nachricht mit mehr Einzelheiten.'] },
    cross: { any: ['Das tut uns leid. Schreiben Sie uns bitte eine Nachricht, dann kümmern wir uns.', 'Danke für den Hinweis. Wir sehen uns das an.'] },
    says: { any: ['Danke fürs Schreiben.', 'Schön, von Ihnen zu hören.'] },
  },
  fr: {
    glad: { any: ['Merci, cela nous fait plaisir !', 'Merci beaucoup !'] },
    asks: { any: ['Nous vérifions et nous répondons ici.', 'Pouvez-vous nous envoyer un message avec plus de détails ?'] },
    cross: { any: ['Nous en sommes désolés. Envoyez-nous un message, nous nous en occupons.', 'Merci de nous le dire. Nous allons voir cela.'] },
    says: { any: ['Merci de nous écrire.', 'Merci !'] },
  },
  es: {
    glad: { any: ['¡Gracias, nos alegra mucho!', '¡Muchas gracias!'] },
    asks: { any: ['Lo miramos y respondemos aquí.', '¿Nos envías un mensaje con más detalles?'] },
    cross: { any: ['Lo sentimos. Envíanos un mensaje y lo miramos.', 'Gracias por decírnoslo. Vamos a verlo.'] },
    says: { any: ['Gracias por escribir.', '¡Gracias!'] },
  },
  pt: {
    glad: { any: ['Obrigado, ficamos felizes!', 'Muito obrigado!'] },
    asks: { any: ['Vamos ver e respondemos aqui.', 'Pode enviar-nos uma mensagem com mais detalhes?'] },
    cross: { any: ['Lamentamos. Envie-nos uma mensagem e tratamos disso.', 'Obrigado por nos dizer. Vamos ver.'] },
    says: { any: ['Obrigado por escrever.', 'Obrigado!'] },
  },
};

interface Topics {
  readonly glad: readonly string[];
  readonly cross: readonly string[];
  /** Words that tell of trouble together alone: “late” is asked for as well, “came late” is not. */
  readonly trouble: RegExp;
  /** Words that turn the next ones around: “not happy”, “no complaints”. */
  readonly turning: readonly string[];
  /** What people ask for, and the keys of the facts that tell it. */
  readonly subjects: readonly { readonly words: readonly string[]; readonly keys: readonly string[] }[];
}

const words = (text: string): readonly string[] => text.split(' ');

/** Words by which gestures and subjects are known. */
export const topics: Readonly<Record<DeskLanguage, Topics>> = {
  en: {
    glad: words('love loved lovely great beautiful wonderful thanks thank amazing gorgeous brilliant happy perfect best fantastic superb delighted'),
    cross: words('broken broke snapped ripped faulty disappointed disappointing refund rude terrible awful horrible complaint complaints worst angry furious annoyed upset unacceptable damaged torn cracked smashed useless rubbish unanswered'),
    trouble: /\b(?:came|arrived|was|were|is|days?|weeks?|hours?|again)\s(?:so |very |too |far too )?late\b|\b(?:is|was|are|were)\s(?:still )?missing\b|\bmissing\s(?:an?|the|one|two|its?|parts?|pieces?)\b|\bwrong\s(?:size|colou?r|kite|order|one|items?|address|parts?|pieces?|thing)\b|\bsomething(?:[’']s|\sis)\swrong\b|\bnever\s(?:arrived?|came|comes?|got|received?|answer(?:s|ed)?|heard|again)\b|n[’']t\s(?:arrived?|come|work|turned|been answered|received?|heard|got)\b|\bnot\s(?:arrived|working|come|received|turned up)\b|\bfell apart\b|\bcame apart\b|\bmoney back\b|\bwaste of\b|\bstill waiting\b|\bno(?:body)?\s(?:answers?|answered|replies|reply)\b|\bbeen delayed\b|\bhas a split\b/iu,
    turning: words("not no never without isn't wasn't aren't weren't don't didn't hardly nothing"),
    subjects: [
      { words: words('open opening hours close closed closing today sunday monday tuesday wednesday thursday friday saturday'), keys: ['hours', 'opening'] },
      { words: words('where address find located parking directions map'), keys: ['address', 'workshop', 'place', 'location', 'parking'] },
      { words: words('book booking reserve place seat ticket tickets sign'), keys: ['booking', 'tickets'] },
      { words: words('phone call ring number'), keys: ['phone'] },
      { words: words('email mail write'), keys: ['email', 'mail'] },
      { words: words('buy order shop website site ship shipping deliver delivery'), keys: ['site', 'shop', 'delivery'] },
      { words: words('price cost costs much pay'), keys: ['price', 'prices'] },
    ],
  },
  de: {
    glad: words('schön toll wunderbar danke großartig liebe klasse lecker perfekt begeistert freue super'),
    cross: words('kaputt enttäuscht enttäuschend erstattung unfreundlich schrecklich beschwerde reklamation ärgerlich wütend verärgert beschädigt zerbrochen gebrochen zerrissen gerissen mangelhaft unverschämt'),
    trouble: /(?<!\p{L})(?:zu spät|verspätet|geld zurück|immer noch nicht|nicht (?:angekommen|gekommen|geliefert|erhalten|bekommen|beantwortet)|nie (?:angekommen|gekommen|bekommen|erhalten)|keine antwort|(?:fehlt|fehlen|fehlte)|falsch(?:e|er|es|en) (?:größe|farbe|bestellung|ware|artikel|adresse|brot|teil))(?!\p{L})/iu,
    turning: words('nicht kein keine keinen keiner nie ohne kaum nichts'),
    subjects: [
      { words: words('geöffnet offen öffnungszeiten uhr geschlossen aufhaben auf? zu? montag dienstag mittwoch donnerstag freitag samstag sonntag heute'), keys: ['hours', 'opening', 'oeffnungszeiten', 'zeiten'] },
      { words: words('wo adresse finde anfahrt parken parkplatz'), keys: ['address', 'adresse', 'workshop', 'place', 'laden', 'parking'] },
      { words: words('buchen reservieren vorbestellen bestellen platz karten'), keys: ['booking', 'tickets', 'bestellen', 'vorbestellung'] },
      { words: words('telefon anrufen nummer'), keys: ['phone', 'telefon'] },
      { words: words('kaufen laden seite versand liefern'), keys: ['site', 'shop', 'seite'] },
      { words: words('preis kostet kosten teuer'), keys: ['price', 'preis', 'preise'] },
    ],
  },
  fr: { glad: words('merci beau belle magnifique super adore bravo génial parfait'), cross: words('cassé cassée déçu déçue décevant remboursement horrible plainte abîmé abîmée furieux scandaleux inacceptable'), trouble: /en retard|(?:jamais|pas) (?:arrivé|reçu|répondu|venu)|(?:il )?manque (?:un|une|des|la|le)|mauvaise? (?:taille|couleur|commande|adresse)/iu, turning: words('pas jamais sans aucun aucune rien'), subjects: [{ words: words('ouvert ouverts horaires heure fermé'), keys: ['hours', 'horaires'] }, { words: words('où adresse trouver'), keys: ['address', 'adresse', 'workshop'] }, { words: words('réserver réservation place'), keys: ['booking'] }, { words: words('prix coûte combien'), keys: ['price', 'prix'] }] },
  es: { glad: words('gracias precioso bonito genial encanta maravilloso bravo perfecto'), cross: words('roto rota decepcionado decepcionada decepcionante reembolso horrible queja dañado dañada enfadado enfadada inaceptable'), trouble: /(?:llegó|llegaron|muy|demasiado) tarde|(?:nunca|no) (?:llegó|ha llegado|recibí|he recibido|contestan)|falta (?:un|una|la|el)|(?:talla|color|pedido) equivocad/iu, turning: words('no nunca sin ningún ninguna nada'), subjects: [{ words: words('abierto abren horario hora cerrado'), keys: ['hours', 'horario'] }, { words: words('dónde dirección encontrar'), keys: ['address', 'direccion', 'workshop'] }, { words: words('reservar reserva plaza'), keys: ['booking'] }, { words: words('precio cuesta cuánto'), keys: ['price', 'precio'] }] },
  pt: { glad: words('obrigado obrigada lindo linda bonito adoro maravilhoso parabéns perfeito'), cross: words('partido partida quebrado quebrada desapontado desapontada desiludido desiludida reembolso horrível reclamação danificado danificada inaceitável'), trouble: /(?:chegou|muito|demasiado) (?:tarde|atrasad[oa])|(?:nunca|não) (?:chegou|recebi|respondem)|falta (?:um|uma|a|o) |(?:tamanho|cor|encomenda) errad/iu, turning: words('não nunca sem nenhum nenhuma nada'), subjects: [{ words: words('aberto abrem horário hora fechado'), keys: ['hours', 'horario'] }, { words: words('onde endereço morada encontrar'), keys: ['address', 'morada', 'workshop'] }, { words: words('reservar reserva lugar'), keys: ['booking'] }, { words: words('preço custa quanto'), keys: ['price', 'preco'] }] },
};
