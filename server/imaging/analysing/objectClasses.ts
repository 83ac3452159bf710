import type { ProposalKind } from '@inkwell/core/model';

/** The everyday things that the detector of objects knows, in its order (the classes of the COCO data set, Lin et al. 2014). */
const names =
  'person,bicycle,car,motorcycle,airplane,bus,train,truck,boat,traffic light,fire hydrant,stop sign,parking meter,bench,bird,cat,dog,horse,sheep,cow,elephant,bear,zebra,giraffe,backpack,umbrella,handbag,tie,suitcase,frisbee,skis,snowboard,ball,kite,baseball bat,baseball glove,skateboard,surfboard,tennis racket,bottle,wine glass,cup,fork,knife,spoon,bowl,banana,apple,sandwich,orange,broccoli,carrot,hot dog,pizza,donut,cake,chair,couch,plant,bed,table,toilet,screen,laptop,mouse,remote,keyboard,phone,microwave,oven,toaster,sink,refrigerator,book,clock,vase,scissors,teddy bear,hair dryer,toothbrush'.split(
    ',',
  );
const animals = new Set('bird,cat,dog,horse,sheep,cow,elephant,bear,zebra,giraffe'.split(','));
/** What stands about in a picture, and is seldom what it is about. */
const furniture = new Set(
  'traffic light,fire hydrant,parking meter,bench,chair,couch,plant,bed,table,toilet,screen,microwave,oven,toaster,sink,refrigerator,book,clock,remote,mouse,keyboard,tie,fork,knife,spoon'.split(
    ',',
  ),
);

/** What a class of the detector is called, and of what kind it is; null for what is not proposed. */
export function objectClass(index: number): { name: string; kind: ProposalKind } | null {
  const name = names[index];
  if (name === undefined || furniture.has(name)) return null;
  return { name, kind: name === 'person' ? 'person' : animals.has(name) ? 'animal' : 'thing' };
}
