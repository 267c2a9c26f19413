'use client';
import { Segmented } from 'antd';
import type { KitState } from '@/core/kit';
import zones from '../shell/zones.module.css';
import { AboutForm } from './AboutForm';
import { AddLine } from './AddLine';
import { Corrected } from './Corrected';
import { Lines } from './Lines';
import { Needs } from './Needs';
import { Options } from './Options';
import { Parcels } from './Parcels';
import { Photos } from './Photos';
import { RoomList } from './records/RoomList';
import { BOARDS, CLAIMS, CONSTRAINTS, NEEDS, NEIGHBOURS, OPTIONS, PADS, PLACEMENT, TEST_POINTS } from './records/specs';
import styles from './Sheet.module.css';
import { type SheetTab, useSheetTab } from './sheetTab';
import { StagesEditor } from './StagesEditor';
import { TypeCards } from './TypeCards';

const PARTS: readonly { readonly value: SheetTab; readonly label: string }[] = [
  { value: 'list', label: 'Parts list' },
  { value: 'stages', label: 'Stages and checks' },
  { value: 'places', label: 'Test points and places' },
  { value: 'facts', label: 'Boards, options, claims' },
  { value: 'correct', label: 'Corrected list or circuit' },
  { value: 'parcels', label: 'Shopping and parcels' },
];

/** What should be: lines, stages, places, options, claims, cards. */
export function SheetView({ kit }: { kit: KitState }) {
  const { tab, open } = useSheetTab();
  return (
    <div className={styles.sheet}>
      <Segmented<SheetTab> className={styles.parts ?? ''} aria-label="Parts of the sheet" value={tab} onChange={open} options={[...PARTS]} />
      <div className={styles.part}>
        <SheetPart kit={kit} tab={tab} />
      </div>
    </div>
  );
}

function SheetPart({ kit, tab }: { kit: KitState; tab: SheetTab }) {
  switch (tab) {
    case 'list':
      return <ListTab kit={kit} />;
    case 'stages':
      return <StagesEditor kit={kit} />;
    case 'places':
      return <PlacesTab kit={kit} />;
    case 'facts':
      return <FactsTab kit={kit} />;
    case 'correct':
      return <Corrected kit={kit} />;
    case 'parcels':
      return <Parcels kit={kit} />;
  }
}

const ListTab = ({ kit }: { kit: KitState }) => (
  <div className={`${zones.zones} ${zones.halves}`}>
    <section className={zones.card} aria-label="Lines">
      <AddLine kit={kit} />
      <Lines kit={kit} />
    </section>
    <section className={zones.card} aria-label="Needs and cards">
      <Needs kit={kit} />
      <Options kit={kit} />
      <TypeCards kit={kit} />
    </section>
  </div>
);

const PlacesTab = ({ kit }: { kit: KitState }) => (
  <div className={`${zones.zones} ${zones.halves}`}>
    <section className={zones.card} aria-label="Points">
      <RoomList kit={kit} spec={TEST_POINTS} />
      <RoomList kit={kit} spec={NEIGHBOURS} />
    </section>
    <section className={zones.card} aria-label="Places">
      <RoomList kit={kit} spec={PLACEMENT} />
      <RoomList kit={kit} spec={PADS} />
    </section>
  </div>
);

const FactsTab = ({ kit }: { kit: KitState }) => (
  <div className={`${zones.zones} ${zones.halves}`}>
    <section className={zones.card} aria-label="About and boards">
      <AboutForm kit={kit} />
      <RoomList kit={kit} spec={BOARDS} />
      <RoomList kit={kit} spec={OPTIONS} />
      <Photos kit={kit} />
    </section>
    <section className={zones.card} aria-label="Needs, claims and rules">
      <RoomList kit={kit} spec={NEEDS} />
      <RoomList kit={kit} spec={CLAIMS} />
      <RoomList kit={kit} spec={CONSTRAINTS} />
    </section>
  </div>
);
