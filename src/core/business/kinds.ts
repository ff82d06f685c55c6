/** Kinds of business: the groups of ISIC Rev. 4 (United Nations, open), found by the words that people use for their trade. */

/** A group of the classification. `code` has three digits; `also` are further words by which it is found. */
export type BusinessKind = { readonly code: string; readonly name: string; readonly also: string };

/** One group a line: code, name as the classification has it, and after a stroke the words of the trade. */
const GROUPS = `
011 Growing of non-perennial crops | farm vegetables grain flowers field
012 Growing of perennial crops | orchard vineyard fruit farm
013 Plant propagation | nursery seedlings plants
014 Animal production | cattle sheep poultry horses bees honey farm breeding stud
015 Mixed farming | farm
016 Support activities to agriculture and post-harvest crop activities | farm services harvest
017 Hunting, trapping and related service activities | game hunter
021 Silviculture and other forestry activities | forest trees
022 Logging | timber firewood
023 Gathering of non-wood forest products | mushrooms berries
024 Support services to forestry | forester tree surgeon
031 Fishing | fisher boat
032 Aquaculture | fish farm oysters
051 Mining of hard coal |
052 Mining of lignite |
061 Extraction of crude petroleum |
062 Extraction of natural gas |
071 Mining of iron ores |
072 Mining of non-ferrous metal ores |
081 Quarrying of stone, sand and clay | quarry gravel
089 Mining and quarrying n.e.c. | salt peat
091 Support activities for petroleum and natural gas extraction |
099 Support activities for other mining and quarrying |
101 Processing and preserving of meat | butcher sausages
102 Processing and preserving of fish, crustaceans and molluscs | smoked fish
103 Processing and preserving of fruit and vegetables | jam pickles juice
104 Manufacture of vegetable and animal oils and fats | olive oil mill
105 Manufacture of dairy products | cheese dairy ice cream
106 Manufacture of grain mill products, starches and starch products | mill flour
107 Manufacture of other food products | bakery baker cakes chocolate confectioner coffee roaster tea spices
108 Manufacture of prepared animal feeds | pet food
110 Manufacture of beverages | brewery winery distillery beer wine cider
120 Manufacture of tobacco products |
131 Spinning, weaving and finishing of textiles | weaver dyeing yarn
139 Manufacture of other textiles | carpets curtains embroidery bags
141 Manufacture of wearing apparel, except fur apparel | tailor dressmaker clothes fashion costumes hats
142 Manufacture of articles of fur |
143 Manufacture of knitted and crocheted apparel | knitting
151 Tanning and dressing of leather; manufacture of luggage, handbags, saddlery and harness | leather saddler bags
152 Manufacture of footwear | shoemaker boots
161 Sawmilling and planing of wood | sawmill
162 Manufacture of products of wood, cork, straw and plaiting materials | woodwork woodturner joiner baskets frames
170 Manufacture of paper and paper products | stationery boxes
181 Printing and service activities related to printing | printer bookbinder screen printing
182 Reproduction of recorded media |
191 Manufacture of coke oven products |
192 Manufacture of refined petroleum products |
201 Manufacture of basic chemicals, fertilizers and nitrogen compounds, plastics and synthetic rubber in primary forms |
202 Manufacture of other chemical products | soap candles cosmetics perfume paint
203 Manufacture of man-made fibres |
210 Manufacture of pharmaceuticals, medicinal chemical and botanical products |
221 Manufacture of rubber products |
222 Manufacture of plastics products | 3d printing
231 Manufacture of glass and glass products | glassblower stained glass
239 Manufacture of non-metallic mineral products n.e.c. | pottery ceramics potter stonemason tiles
241 Manufacture of basic iron and steel |
242 Manufacture of basic precious and other non-ferrous metals |
243 Casting of metals | foundry
251 Manufacture of structural metal products, tanks, reservoirs and steam generators | metalwork welding gates
252 Manufacture of weapons and ammunition |
259 Manufacture of other fabricated metal products; metalworking service activities | blacksmith locksmith knives tools
261 Manufacture of electronic components and boards | electronics
262 Manufacture of computers and peripheral equipment |
263 Manufacture of communication equipment |
264 Manufacture of consumer electronics | loudspeakers amplifiers
265 Manufacture of measuring, testing, navigating and control equipment; watches and clocks | watchmaker clocks
266 Manufacture of irradiation, electromedical and electrotherapeutic equipment |
267 Manufacture of optical instruments and photographic equipment |
268 Manufacture of magnetic and optical media |
271 Manufacture of electric motors, generators, transformers and electricity distribution and control apparatus |
272 Manufacture of batteries and accumulators |
273 Manufacture of wiring and wiring devices |
274 Manufacture of electric lighting equipment | lamps
275 Manufacture of domestic appliances | stoves
279 Manufacture of other electrical equipment |
281 Manufacture of general-purpose machinery |
282 Manufacture of special-purpose machinery |
291 Manufacture of motor vehicles |
292 Manufacture of bodies for motor vehicles; manufacture of trailers and semi-trailers | coachwork camper vans
293 Manufacture of parts and accessories for motor vehicles |
301 Building of ships and boats | boatbuilder
302 Manufacture of railway locomotives and rolling stock |
303 Manufacture of air and spacecraft and related machinery |
304 Manufacture of military fighting vehicles |
309 Manufacture of transport equipment n.e.c. | bicycles frames wheelchairs
310 Manufacture of furniture | joinery cabinet maker kitchens upholstery
321 Manufacture of jewellery, bijouterie and related articles | jeweller goldsmith silversmith rings
322 Manufacture of musical instruments | violin guitar luthier strings bows piano organ
323 Manufacture of sports goods | surfboards skis
324 Manufacture of games and toys | toys puzzles
325 Manufacture of medical and dental instruments and supplies | dental laboratory spectacles orthopaedic
329 Other manufacturing n.e.c. | brushes umbrellas handicraft
331 Repair of fabricated metal products, machinery and equipment | machine repair
332 Installation of industrial machinery and equipment |
351 Electric power generation, transmission and distribution | solar power
352 Manufacture of gas; distribution of gaseous fuels through mains |
353 Steam and air conditioning supply | district heating
360 Water collection, treatment and supply |
370 Sewerage | drains septic tanks
381 Waste collection | rubbish skip hire
382 Waste treatment and disposal |
383 Materials recovery | scrap recycling
390 Remediation activities and other waste management services |
410 Construction of buildings | builder houses carpentry
421 Construction of roads and railways |
422 Construction of utility projects |
429 Construction of other civil engineering projects |
431 Demolition and site preparation | earthworks digger
432 Electrical, plumbing and other construction installation activities | electrician plumber heating solar installer
433 Building completion and finishing | painter decorator plasterer tiler floors glazier
439 Other specialized construction activities | roofer scaffolding chimney bricklayer
451 Sale of motor vehicles | car dealer
452 Maintenance and repair of motor vehicles | garage mechanic car wash
453 Sale of motor vehicle parts and accessories | tyres
454 Sale, maintenance and repair of motorcycles and related parts and accessories | motorcycle
461 Wholesale on a fee or contract basis | agent
462 Wholesale of agricultural raw materials and live animals |
463 Wholesale of food, beverages and tobacco | importer
464 Wholesale of household goods | importer
465 Wholesale of machinery, equipment and supplies |
466 Other specialized wholesale |
469 Non-specialized wholesale trade |
471 Retail sale in non-specialized stores | village shop grocer general store
472 Retail sale of food, beverages and tobacco in specialized stores | shop wine bakery greengrocer delicatessen
473 Retail sale of automotive fuel in specialized stores | filling station
474 Retail sale of information and communications equipment in specialized stores | computer shop phones
475 Retail sale of other household equipment in specialized stores | furniture shop hardware lamps carpets
476 Retail sale of cultural and recreation goods in specialized stores | bookshop toys bicycles sports music shop
477 Retail sale of other goods in specialized stores | clothes shoes pharmacy florist gallery antiques second-hand jeweller
478 Retail sale via stalls and markets | market stall
479 Retail trade not in stores, stalls or markets | online shop web shop mail order
491 Transport via railways |
492 Other land transport | taxi bus removals haulage lorry
493 Transport via pipeline |
501 Sea and coastal water transport | ferry charter boat
502 Inland water transport | river boat
511 Passenger air transport | balloon flights
512 Freight air transport |
521 Warehousing and storage | self storage
522 Support activities for transportation | parking towing
531 Postal activities |
532 Courier activities | bicycle courier delivery
551 Short term accommodation activities | hotel guest house holiday flat bed and breakfast
552 Camping grounds, recreational vehicle parks and trailer parks | campsite
559 Other accommodation | student hostel
561 Restaurants and mobile food service activities | restaurant café food truck
562 Event catering and other food service activities | caterer canteen
563 Beverage serving activities | bar pub
581 Publishing of books, periodicals and other publishing activities | publisher magazine newspaper
582 Software publishing | software games apps
591 Motion picture, video and television programme activities | film video cinema
592 Sound recording and music publishing activities | recording studio label
601 Radio broadcasting |
602 Television programming and broadcasting activities |
611 Wired telecommunications activities |
612 Wireless telecommunications activities |
613 Satellite telecommunications activities |
619 Other telecommunications activities |
620 Computer programming, consultancy and related activities | programmer developer web design it support
631 Data processing, hosting and related activities; web portals | hosting
639 Other information service activities | research news
641 Monetary intermediation |
642 Activities of holding companies |
643 Trusts, funds and similar financial entities | foundation
649 Other financial service activities, except insurance and pension funding activities |
651 Insurance |
652 Reinsurance |
653 Pension funding |
661 Activities auxiliary to financial service activities, except insurance and pension funding |
662 Activities auxiliary to insurance and pension funding | insurance broker
663 Fund management activities |
681 Real estate activities with own or leased property | landlord letting rooms workspace
682 Real estate activities on a fee or contract basis | estate agent property management
691 Legal activities | lawyer solicitor notary
692 Accounting, bookkeeping and auditing activities; tax consultancy | accountant bookkeeper tax adviser
701 Activities of head offices |
702 Management consultancy activities | consultant coach
711 Architectural and engineering activities and related technical consultancy | architect engineer surveyor
712 Technical testing and analysis | laboratory inspection
721 Research and experimental development on natural sciences and engineering |
722 Research and experimental development on social sciences and humanities |
731 Advertising | agency marketing signs
732 Market research and public opinion polling |
741 Specialized design activities | designer graphic interior fashion
742 Photographic activities | photographer portraits weddings
749 Other professional, scientific and technical activities n.e.c. | translator interpreter agent
750 Veterinary activities | vet animals
771 Renting and leasing of motor vehicles | car hire van
772 Renting and leasing of personal and household goods | bicycle hire costumes instruments skis tools party
773 Renting and leasing of other machinery, equipment and tangible goods | tool hire marquees
774 Leasing of intellectual property and similar products, except copyrighted works |
781 Activities of employment placement agencies | recruiter
782 Temporary employment agency activities |
783 Other human resources provision |
791 Travel agency and tour operator activities | travel tours
799 Other reservation service and related activities | guide tickets
801 Private security activities | guard
802 Security systems service activities | alarms
803 Investigation activities | detective
811 Combined facilities support activities | caretaker
812 Cleaning activities | cleaner windows
813 Landscape care and maintenance service activities | gardener lawn
821 Office administrative and support activities | secretary
822 Activities of call centres |
823 Organization of conventions and trade shows | events conference
829 Business support service activities n.e.c. |
841 Administration of the State and the economic and social policy of the community | council
842 Provision of services to the community as a whole |
843 Compulsory social security activities |
851 Pre-primary and primary education | kindergarten nursery school
852 Secondary education | school
853 Higher education | college
854 Other education | lessons teacher music school driving school dance language course yoga
855 Educational support activities | tutoring exams
861 Hospital activities |
862 Medical and dental practice activities | doctor dentist practice
869 Other human health activities | physiotherapist midwife therapist massage osteopath psychologist
871 Residential nursing care facilities |
872 Residential care activities for people with disabilities, mental illness or addiction |
873 Residential care activities for the elderly and disabled | care home
879 Other residential care activities |
881 Social work activities without accommodation for the elderly and disabled | home care
889 Other social work activities without accommodation | childcare charity refugee aid
900 Creative, arts and entertainment activities | artist musician theatre choir concert painter sculptor writer band orchestra
910 Libraries, archives, museums and other cultural activities | museum garden
920 Gambling and betting activities |
931 Sports activities | club gym trainer swimming football
932 Other amusement and recreation activities | playground fair escape
941 Activities of business, employers and professional membership organizations | chamber guild
942 Activities of trade unions |
949 Activities of other membership organizations | association society church club charity parish
951 Repair of computers and communication equipment | phone repair
952 Repair of personal and household goods | cobbler bicycle furniture restorer instrument repair alterations
960 Other personal service activities | hairdresser barber beauty laundry tattoo funeral wedding dog grooming
970 Activities of households as employers of domestic personnel |
981 Undifferentiated goods-producing activities of private households for own use |
982 Undifferentiated service-producing activities of private households for own use |
990 Activities of extraterritorial organizations and bodies |`;

/** All groups, by their code. */
export const BUSINESS_KINDS: readonly BusinessKind[] = GROUPS.trim()
  .split('\n')
  .map((line) => {
    const [named = '', also = ''] = line.split('|');
    return { code: named.slice(0, 3), name: named.slice(4).trim(), also: also.trim() };
  });

const byCode = new Map(BUSINESS_KINDS.map((kind) => [kind.code, kind]));

/** The group with a code; null where there is none. */
export const businessKind = (code: string): BusinessKind | null => byCode.get(code) ?? null;

const plain = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/**
 * Groups in whose words every typed word begins one; those of the trade's own words first. By code where digits are typed.
 *
 * @param most how many at most
 */
export function findKinds(typed: string, most = 8): readonly BusinessKind[] {
  const words = plain(typed)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
  if (words.length === 0) return [];
  const begins = (text: string, word: string): boolean =>
    plain(text)
      .split(/[^\p{L}\p{N}]+/u)
      .some((own) => own.startsWith(word));
  const matches = BUSINESS_KINDS.filter(({ code, name, also }) =>
    words.every((word) => begins(`${code} ${name} ${also}`, word)),
  );
  const rank = ({ also }: BusinessKind): number => (words.every((word) => begins(also, word)) ? 0 : 1);
  return [...matches].sort((a, b) => rank(a) - rank(b)).slice(0, most);
}
