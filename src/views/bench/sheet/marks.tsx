/** Icons made once: an element that is the same is not drawn again, and a sheet has hundreds. */
import {
  Ban,
  Bookmark,
  ChevronDown,
  ChevronRight,
  ChevronUp,
  CircleCheck,
  ClipboardCopy,
  CornerUpLeft,
  FileDown,
  Info,
  Maximize2,
  Minimize2,
  Redo2,
  Repeat2,
  RotateCcw,
  Send,
  TriangleAlert,
  Undo2,
  Wrench,
} from 'lucide-react';

export const barredMark = <Ban size={12} aria-hidden />;
export const barredLineMark = <Ban size={12} style={{ flex: 'none', marginTop: 3 }} aria-hidden />;
export const keepMark = <Bookmark size={15} aria-hidden />;
export const openMark = <ChevronDown size={12} aria-hidden />;
export const unfoldedMark = <ChevronDown size={14} aria-hidden />;
export const downMark = <ChevronDown size={15} aria-hidden />;
export const closedMark = <ChevronRight size={12} aria-hidden />;
export const foldedMark = <ChevronRight size={14} aria-hidden />;
export const upMark = <ChevronUp size={15} aria-hidden />;
export const completeMark = <CircleCheck size={15} aria-hidden style={{ flex: 'none' }} />;
export const copyMark = <ClipboardCopy size={15} aria-hidden />;
export const backMark = <CornerUpLeft size={14} aria-hidden />;
export const fileMark = <FileDown size={12} aria-hidden />;
export const noteMark = <Info size={14} aria-hidden />;
export const largerMark = <Maximize2 size={13} aria-hidden />;
export const smallerMark = <Minimize2 size={13} aria-hidden />;
export const redoMark = <Redo2 size={15} aria-hidden />;
export const sendMark = <Send size={15} aria-hidden />;
export const swapMark = <Repeat2 size={12} aria-hidden />;
export const releaseMark = <RotateCcw size={13} aria-hidden />;
export const alertMark = <TriangleAlert size={13} aria-hidden />;
export const warningMark = <TriangleAlert size={14} aria-hidden />;
export const undoMark = <Undo2 size={15} aria-hidden />;
export const specialMark = <Wrench size={13} aria-hidden />;
