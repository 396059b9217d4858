/** Edits from chance: scenes, nests, files and what a project keeps. */
import { newItem } from '../../document/make';
import { newKnob } from '../../document/knobs';
import { type KeptSettings, KNOB_KINDS } from '../../document/types';
import { adaptScene } from '../../edits/adapt';
import { addAsset, removeAsset, renameAsset, swapAsset } from '../../edits/assets';
import { addSwatch, detachSwatches, removeSwatch, setSwatch, takeSwatch } from '../../edits/swatches';
import { forgetEase, keepEase } from '../../edits/eases';
import { addDelivery, moveDelivery, removeDelivery, setDelivery } from '../../edits/deliveries';
import { forgetEffects, keepEffects, putEffects } from '../../edits/effects';
import { newDelivery } from '../../delivery/kept';
import { addLayers } from '../../edits/layers';
import { addMarker, removeMarker, setMarker } from '../../edits/markers';
import { READY_MOVES } from '../../moves/ready';
import { applyMoveToParts } from '../../edits/moves';
import { addNest, nestLayers } from '../../edits/nests';
import { addItem } from '../../edits/recipe';
import { reconcile } from '../../edits/reconcile';
import {
  addScene,
  bringBackScenes,
  duplicateScene,
  moveScene,
  removeScene,
  renameProject,
  setGuides,
  setScene,
} from '../../edits/scenes';
import { ownCopy, setKnobHere } from '../../edits/settings';
import { columnsOffered } from '../../edits/versionOffers';
import {
  addColumns,
  addVersion,
  fillVersions,
  moveVersion,
  putVersion,
  removeColumn,
  removeVersion,
  renameColumn,
  renameVersion,
  setInVersion,
} from '../../edits/versions';
import { randomEase } from '../randomProject';
import { HOW, amount, frame, name, type RandomEdit } from './place';

export const PROJECT: readonly RandomEdit[] = [
  (at) => renameProject(name(at)),
  (at) => {
    const { height, rate, length, background } = at.scene;
    return addScene(at.makeId(), name(at), { width: amount(at), height, rate, length, background });
  },
  (at) => duplicateScene(at.scene.id, at.makeId()),
  (at) => (at.doc.order.length > 1 ? removeScene(at.scene.id) : null),
  (at) => {
    const settings = at.chance.one<KeptSettings>([
      { format: 'mp4', scale: amount(at) },
      { format: 'gif', from: frame(at), to: frame(at), hold: amount(at) },
      { format: 'png', frame: frame(at) },
      { format: 'html5', click: at.chance.one([name(at), 'https://lamp.example/']), ground: name(at) },
    ]);
    const scenes = [at.scene.id, at.chance.one([...at.doc.order, 'gone'])];
    const kept = newDelivery(at.makeId(), name(at), scenes, settings);
    const delivery = { ...kept, fade: amount(at), file: name(at), everyVersion: at.chance.happens(0.5) };
    const first = at.doc.deliveries[0];
    if (!first || at.chance.happens(0.3)) return addDelivery(delivery);
    return at.chance.one([
      setDelivery(first.id, { settings, fade: frame(at) }),
      setDelivery(first.id, { name: name(at), scenes: at.chance.one([[], [at.scene.id, at.scene.id]]) }),
      moveDelivery(first.id, at.chance.whole(0, 3)),
      removeDelivery(first.id),
    ]);
  },
  (at) => {
    const { columns, rows } = at.doc.versions;
    const [column, row] = [columns.length > 0 ? at.chance.one(columns) : undefined, rows[0]];
    const offered = columnsOffered(at.doc, at.makeId);
    if (!column || at.chance.happens(0.2)) return offered.length > 0 ? addColumns([at.chance.one(offered)]) : null;
    if (!row || at.chance.happens(0.2)) return addVersion({ id: at.makeId(), name: name(at), values: {} });
    const cell = at.chance.one([name(at), '#FFB23E', ...Object.keys(at.doc.assets)]);
    return at.chance.one([
      setInVersion(row.id, column.id, cell),
      putVersion(row.id),
      fillVersions(
        [[name(at), name(at)], [cell]],
        { row: at.chance.whole(0, 2), column: at.chance.whole(-1, 1) },
        at.makeId,
      ),
      renameVersion(row.id, name(at)),
      renameColumn(column.id, name(at)),
      moveVersion(row.id, at.chance.whole(0, 3)),
      at.chance.one([removeVersion(row.id), removeColumn(column.id)]),
    ]);
  },
  (at) => bringBackScenes([{ ...at.scene, id: at.chance.one([at.makeId(), at.scene.id]) }], at.doc.assets),
  (at) => moveScene(at.scene.id, at.chance.whole(0, 3)),
  (at) =>
    adaptScene(
      at.scene.id,
      { width: at.chance.whole(1, 4000), height: at.chance.whole(1, 4000) },
      at.chance.one(['fit', 'fill', 'middle'] as const),
      at.makeId(),
    ),
  (at) => setGuides(at.scene.id, { x: [amount(at)], y: [1, amount(at)] }),
  (at) =>
    setScene(
      at.scene.id,
      at.chance.one([
        { name: name(at) },
        { length: frame(at) },
        { width: amount(at) },
        { poster: frame(at) },
        { eye: { angle: amount(at), off: [amount(at), amount(at)] } },
        { light: { turn: amount(at), tilt: amount(at), strength: amount(at) } },
      ]),
    ),
  (at) => addMarker(at.scene.id, { id: at.makeId(), frame: frame(at), name: name(at) }),
  (at) => {
    const marker = at.scene.markers[0];
    return marker
      ? at.chance.one([
          setMarker(at.scene.id, marker.id, { frame: frame(at) }),
          setMarker(at.scene.id, marker.id, { name: name(at) }),
          removeMarker(at.scene.id, marker.id),
        ])
      : null;
  },
  (at) => {
    const nest = at.layer.kind === 'drawing' && Object.values(at.layer.items).find((item) => item.kind === 'nest');
    if (!nest) return null;
    const card = { scene: at.scene.id, layer: at.layer.id, item: nest.id };
    const knob = newKnob(at.chance.one(['k0', 'k1']), at.chance.one(KNOB_KINDS), name(at));
    const inner = nest.params.scene && 'value' in nest.params.scene ? (nest.params.scene.value as string) : '';
    if (at.chance.happens(0.3) && at.doc.scenes[inner]) return ownCopy(card, inner, at.makeId);
    return setKnobHere(
      card,
      knob,
      knob.params.value && 'value' in knob.params.value ? knob.params.value.value : 0,
      at.makeId(),
    );
  },
  (at) => addNest(at.scene.id, at.chance.one(at.doc.order), at.makeId(), frame(at)),
  (at) => {
    const id = at.makeId();
    const [kind, key, ids] = at.chance.one([
      ['nest', 'scene', at.doc.order],
      ['picture', 'asset', Object.keys(at.doc.assets)],
    ] as const);
    return addItem(at.scene.id, at.layer.id, newItem(id, kind, { [key]: at.chance.one(['', 'gone', ...ids]) }));
  },
  (at) => nestLayers(at.scene.id, at.ids, name(at), frame(at), at.makeId),
  (at) =>
    applyMoveToParts(
      at.scene.id,
      at.ids,
      at.chance.one(['letters', 'words', 'lines'] as const),
      at.chance.one(READY_MOVES),
      frame(at),
      () => 99,
      at.makeId,
    ),
  (at) => {
    const [asset] = Object.values(at.doc.assets);
    const fresh = {
      id: at.makeId(),
      name: name(at),
      sha: 'cd'.repeat(32),
      bytes: 4,
      kind: 'picture',
      type: 'image/png',
      width: 3,
      height: 4,
    } as const;
    if (!asset) return addAsset(fresh);
    return at.chance.one([swapAsset(asset.id, fresh), renameAsset(asset.id, name(at)), removeAsset(asset.id)]);
  },
  (at) => addSwatch({ id: at.makeId(), name: name(at), color: at.chance.one(['#FFB23E', 'amber']) }),
  (at) => (at.doc.swatches[0] ? removeSwatch(at.doc.swatches[0].id) : null),
  (at) => (at.doc.swatches[0] ? setSwatch(at.doc.swatches[0].id, { color: at.chance.one(['#2EC4B6', 'red']) }) : null),
  (at) => {
    const { id: layer } = at.layer;
    const fill = at.layer.kind === 'drawing' ? Object.values(at.layer.items).find((i) => i.kind === 'fill') : undefined;
    const swatch = at.doc.swatches[0];
    if (!fill || !swatch) return null;
    const ref = { scene: at.scene.id, layer, item: fill.id, key: 'color' };
    const how = { write: at.chance.one(['key', 'curve'] as const), frame: frame(at) };
    return at.chance.happens(0.8) ? takeSwatch(ref, swatch, how) : detachSwatches([ref]);
  },
  (at) => keepEase({ id: at.makeId(), name: name(at), ease: randomEase(at.chance, HOW) }),
  (at) => (at.doc.eases[0] ? forgetEase(at.doc.eases[0].id) : null),
  (at) =>
    at.layer.kind === 'drawing' ? keepEffects(at.makeId(), name(at), at.layer, Object.keys(at.layer.items)) : null,
  (at) => (at.doc.effects[0] ? forgetEffects(at.doc.effects[0].id) : null),
  (at) =>
    at.layer.kind === 'drawing' && at.doc.effects[0]
      ? putEffects(at.scene.id, at.layer, at.doc.effects[0], null, at.chance.whole(0, 3), at.makeId)
      : null,
  (at) => addItem(at.scene.id, at.layer.id, newItem(at.makeId(), 'repeater', { copies: amount(at) })),
  (at) => addLayers(at.scene.id, [{ ...at.layer, id: at.makeId(), name: name(at) }]),
  () => reconcile(),
];
