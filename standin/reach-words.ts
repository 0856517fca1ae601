/** Hashtags that people of the stand-in networks use. */
export const tagWords: readonly string[] = `
Kite Kites KiteFlying KiteMaking KiteBuilding KiteDesign KiteFestival KiteWeekend BuildAKite SledKite DeltaKite StuntKite KiteTail KiteLine Ripstop Windsock WindArt WindDay OnTheWind UpInTheAir SkyFull SkyWatch
Workshop WeekendWorkshop SaturdayWorkshop FamilyWorkshop LearnToMake MakeItYourself MadeByHand HandMade Handmade HandSewn SlowCraft CraftDay CraftFair Makers MakersOfTheCoast SmallWorkshop InTheLoft AtTheBench BehindTheScenes WorkInProgress ToolTalk Sewing Stitching Mending Repair
Sea SeaAir SeaSide Seaside Coast CoastLife Harbour Quay Tide TideTable Dunes Beach BeachDay Gulls Rope Knots Bowline Sailing Boats Lanterns NightFlight NightMarket StreetFood Noodles Dumplings Steam MarketDay MarketNight EatLocal LocalFood Bakery Bread Sourdough Rye Pastry BreadLovers EarlyMorning Crust Oven Flour FromTheOven Baker BakersOfTheCity Brot Backen Handwerk Sauerteig Wochenende Ausflug Drachen DrachenBauen
Spring Summer Autumn Winter December Advent Holiday HolidayPlans WeekendPlans WeekendIdeas RainyDay SunnyDay FamilyTime FamilyFun WithKids Children Gift GiftIdea Gifts SmallGifts Present Birthday Festival OpenDay OpenDoors OpenStudio NewIn NewKites NewColours Limited Numbered Colour Colours Red Yellow Blue Rainbow Pattern Patchwork Fabric Textile Design Poster Print Photo PhotoOfTheDay Landscape BlackAndWhite
SmallBusiness ShopLocal ShopSmall LocalShop Team Teamwork Thanks Behind Story Stories OurStory History Museum QuayMuseum Volunteers Community Neighbours Tips Tip HowTo StepByStep Checklist DidYouKnow Question Poll Quote Reading Weather WindReport Forecast Calm Storm Fog Rain Sun Clouds Morning Evening Night Monday Friday Saturday Sunday
`.trim().split(/\s+/u);

/** Places for which networks know what rises. */
export const places: readonly string[] = ['Gullwick', 'Underwater Lane', 'Lanternfall', 'Krumme Gasse', 'Everywhere'];

/** People and pages with their handle on each network where they have one. */
export const people: readonly { readonly name: string; readonly networks: Readonly<Record<string, string>> }[] = [
  { name: 'Marlow Tregear', networks: { petalry: '@marlow.flies', quipline: '@marlowflies', hearthside: '@marlow.tregear' } },
  { name: 'Gullwick Quay Museum', networks: { petalry: '@quaymuseum', hearthside: '@gullwickquaymuseum', guildrow: '@gullwick.quay.museum' } },
  { name: 'Saltmarsh Sailmakers', networks: { petalry: '@saltmarsh.sails', quipline: '@saltmarshsails', guildrow: '@saltmarsh.sailmakers' } },
  { name: 'Ines Corvell', networks: { petalry: '@ines.c', quipline: '@inescorvell', whirlo: '@inesflies' } },
  { name: 'The Big Blow', networks: { petalry: '@thebigblow', quipline: '@bigblow', hearthside: '@bigblowweekend', whirlo: '@bigblow', longhall: '@bigblow' } },
  { name: 'Odalys Prynne', networks: { hearthside: '@odalys.prynne', guildrow: '@odalys.prynne' } },
  { name: 'Harbour Radio 4', networks: { quipline: '@harbour4', longhall: '@harbourradio' } },
  { name: 'Steamworks Dumplings', networks: { petalry: '@steamworks', hearthside: '@steamworksdumplings' } },
];
