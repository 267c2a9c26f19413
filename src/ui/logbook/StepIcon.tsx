import {
  BugOutlined,
  CheckOutlined,
  DashboardOutlined,
  EditOutlined,
  FileTextOutlined,
  InboxOutlined,
  NumberOutlined,
  PushpinOutlined,
  ToolOutlined,
} from '@ant-design/icons';
import type { LogStep, LogTopic } from '@/core/loop';

const ICONS: Readonly<Record<LogTopic, typeof EditOutlined>> = {
  counting: NumberOutlined,
  measuring: DashboardOutlined,
  fitting: PushpinOutlined,
  readings: CheckOutlined,
  faults: BugOutlined,
  sheet: EditOutlined,
  instruments: ToolOutlined,
  notes: FileTextOutlined,
};

/** What a step belongs to, as a sign. */
export function StepIcon({ step }: { step: LogStep }) {
  const Icon = step.making ? InboxOutlined : ICONS[step.topic];
  return <Icon aria-label={step.topic} />;
}
