/** The English words that decide how a title is cased. Lists from memory of grammars; no published source. */

const words = (list: string): ReadonlySet<string> => new Set(list.split(/\s+/))

export const articles = words('a an the')
/** The coordinating conjunctions that the Chicago manual sets small. */
export const coordinating = words('and but for nor or')
/** Conjunctions of three letters or fewer that AP sets small. */
export const shortConjunctions = words('and as but for if nor or')
/** Prepositions of three letters or fewer. */
export const shortPrepositions = words('at by for in of off on out per pro to up v via vs')
/** Prepositions of any length. */
export const prepositions = words(
  `about above according across after against along amid amidst among amongst around as at atop before behind below
   beneath beside besides between beyond by concerning despite down during except following for from in inside into
   like near of off on onto opposite out outside over past per pro regarding since through throughout till to toward
   towards under underneath until unto up upon v versus via vs with within without`,
)
/** Prepositions that are conjunctions before a subject: "After You Leave". */
export const alsoConjunctions = words('after before since until till like')
export const subjects = words('i you he she it we they')
/** Words before which nothing but a noun or an adjective stands: "The On Button". */
export const determiners = words('a an the my your his her its our their this that these those')
/** Prepositions that serve as adverbs: "Look Up", "Spelling Them Out". */
export const particles = words(
  'about across along around away back by down in off on out over through to under up',
)
export const objects = words('it them him her us me you this that')

/** Verbs by the particles with which they make one meaning. */
const phrasal: Record<string, string> = {
  up: `act add back blow break bring brush build call catch cheer clean clear climb close come cook cover cut divide
    do draw dress dry end eat fill fix follow get give go grow hang heat hold hurry keep lift light line link lock look
    make mix move open pack pay pick pile pop pull push put read ring roll save send set shake show shut sign size sit
    slow speak speed stand start stay step stir sum take tear think tidy tie top track turn type use wake walk warm
    wash wind wrap write`,
  down: `back break bring calm climb close come cool cut drop get go hold hunt knock lay let lie look narrow note pass
    pin play pull put run scale set settle shut sit slow stand stay step strip take tear tone track turn wind write`,
  on: `add call carry catch come count get go hang hold keep log move pass pick press push put read sign start stay
    switch take touch try turn`,
  off: `back break call clear come cool cut doze drop finish get give go head hold kick lay leave let lift log pay pull
    put ring round see seal send set show shut sign start stay switch take tear tell top turn wear write`,
  out: `back bail block branch break bring burn buy call cancel carry check clear come cross cut dig draw drop eat fade
    fall figure fill find get give go hand hang help hold keep lay leave let line live log look make map miss move opt
    pass pay phase pick point print pull put read roll rule run seek sell send set sort spell spread stand start stay
    step stretch take talk tear tell think throw try turn wear work write`,
  in: `bring call check chip close come cut drop fill fit get give go hand join jump keep kick lead let log look move
    plug pull put settle sign sink step stop take tune turn zoom`,
  over: 'boil carry come get go hand look make pull roll run start stop take talk think turn win',
  by: 'come drop get go pass put stand stop',
  back: '',
  through: 'break come fall follow get go look pull push read run see think walk work',
  around: 'come get go hang look move run shop show stick turn walk',
  about: 'bring come',
  across: 'come get',
  along: 'bring come get go move play run sing tag',
  to: 'come',
  under: 'go',
}
const phrasalVerbs = new Map(Object.entries(phrasal).map(([particle, verbs]) => [particle, words(verbs)]))
const irregular: Record<string, string> = {
  went: 'go',
  gone: 'go',
  took: 'take',
  taken: 'take',
  came: 'come',
  broke: 'break',
  broken: 'break',
  got: 'get',
  made: 'make',
  gave: 'give',
  found: 'find',
  stood: 'stand',
  wrote: 'write',
  written: 'write',
  fell: 'fall',
  kept: 'keep',
  held: 'hold',
  brought: 'bring',
  paid: 'pay',
  laid: 'lay',
  sold: 'sell',
  ran: 'run',
  sat: 'sit',
}

/** Possible base forms of an inflected verb, in lower case. */
function bases(word: string): string[] {
  const forms = [word, irregular[word] ?? '']
  for (const [ending, ...roots] of [
    ['ing', '', 'e'],
    ['ed', '', 'e'],
    ['es', '', 'e'],
    ['s', ''],
  ] as const)
    if (word.endsWith(ending)) {
      const stem = word.slice(0, -ending.length)
      forms.push(...roots.map((r) => stem + r))
      if (/(.)\1$/.test(stem)) forms.push(stem.slice(0, -1))
      if (stem.endsWith('i')) forms.push(stem.slice(0, -1) + 'y')
    }
  return forms
}

/** Whether a particle makes one meaning with a verb: "turn off", "taking down". */
export const isPhrasal = (verb: string, particle: string): boolean =>
  bases(verb).some((b) => phrasalVerbs.get(particle)?.has(b) === true)

/** Verbs that often follow "to" as an infinitive. */
export const commonVerbs = words(
  `add answer apply arrive ask avoid be become begin believe book borrow break bring build buy call carry catch change
   check choose clean climb come consider contact cook count create cut decide do draw draw dress drink drive eat
   enjoy enter expect explain feel fill find fish fit fix follow forget get give go grow happen have hear help hire
   hold improve join keep know land learn leave let light like listen live look love maintain make measure meet mend
   move need open order pack pay pick plan plant play prepare press print prove put reach read remember remove repair
   rest ride run sail save say see seek sell send serve set share show sing sit sleep solve speak spend stand start
   stay stop study swim take talk teach tell test think tie travel try turn understand use visit wait walk want watch
   wear win work write`,
)
/** Days, months, and what is named after places: capitals in any style. */
export const alwaysCapital = words(
  `monday tuesday wednesday thursday friday saturday sunday january february april june july august september october
   november december christmas easter english french german spanish italian polish greek danish swedish norwegian
   finnish dutch irish scottish welsh british american european african asian russian chinese japanese atlantic
   pacific baltic arctic antarctic mediterranean england scotland wales ireland britain europe africa asia america`,
)
/** Prefixes that cannot stand alone: what follows them stays small, "Anti-intellectual". */
export const prefixes = words(
  'anti co de extra inter intra mid mini multi non over post pre pro pseudo re semi sub super ultra un under',
)
/** Parts of names that stay small where they are written small: "da Vinci". */
export const nameParticles = words(
  'al bin d da das de del della den der di do dos du el la le van von zu zum zur',
)
/** Latin expressions that are set as one, in capitals: "In Vitro". */
export const latin: readonly [string, string][] = [
  ['in', 'vitro'],
  ['in', 'vivo'],
  ['in', 'situ'],
  ['de', 'facto'],
  ['de', 'jure'],
  ['ad', 'hoc'],
  ['ex', 'officio'],
  ['pro', 'bono'],
  ['a', 'priori'],
]
