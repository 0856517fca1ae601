/** Words of alt texts that say that somebody is in the picture, by language; plurals and cases are written out. */
const peopleWords = {
  en: 'person people man men woman women boy boys girl girls child children kid kids baby babies toddler family families couple crowd crowds friend friends neighbour neighbours neighbor neighbors customer customers visitor visitors guest guests worker workers maker makers baker bakers team colleague colleagues portrait face faces hand hands fingers smile smiles smiling grandmother grandfather mother father daughter son somebody someone he she they',
  de: 'person personen mensch menschen mann männer frau frauen junge jungen mädchen kind kinder kindern baby babys familie familien paar menge freund freunde freundin freundinnen nachbar nachbarn kundin kunde kunden besucher gast gäste bäcker bäckerin team kollegin kollegen porträt gesicht gesichter hand hände händen finger lächelt lächeln oma opa mutter vater tochter töchter sohn jemand',
  fr: 'personne personnes gens homme hommes femme femmes garçon garçons fille filles enfant enfants bébé famille couple foule ami amis amie amies voisin voisins voisine client cliente clients visiteur visiteurs invité invités équipe collègue collègues portrait visage visages main mains doigts sourire sourit mère père fils quelqu’un',
  es: 'persona personas gente hombre hombres mujer mujeres niño niños niña niñas bebé familia pareja multitud amigo amigos amiga amigas vecino vecinos vecina cliente clientes visitante visitantes invitado invitados equipo retrato cara caras rostro mano manos dedos sonrisa sonríe madre padre hija hijo alguien',
  pt: 'pessoa pessoas gente homem homens mulher mulheres menino meninos menina meninas criança crianças bebê bebé família casal multidão amigo amigos amiga amigas vizinho vizinhos vizinha cliente clientes visitante visitantes convidado convidados equipe equipa retrato rosto rostos mão mãos dedos sorriso sorri mãe pai filha filho alguém',
} as const;

const known: ReadonlySet<string> = new Set(Object.values(peopleWords).flatMap((words) => words.split(' ')));
const segmenter = new Intl.Segmenter('und', { granularity: 'word' });

/**
 * Whether a picture shows people, as its alt text says; null where nobody has described it. A picture is not looked at: what is in it is what the
 * brand wrote about it.
 */
export function showsPeople(altText: string): boolean | null {
  const text = altText.trim().toLowerCase();
  if (text === '') return null;
  for (const { segment } of segmenter.segment(text)) if (known.has(segment)) return true;
  return false;
}
