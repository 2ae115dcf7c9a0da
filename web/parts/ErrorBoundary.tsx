import { Component, type ReactNode } from 'react';
import { Trouble } from './Notices.tsx';

interface Props {
  /** Where the person is: going elsewhere shows the new page and not the old fault. */
  path: string;
  children: ReactNode;
}

/** Catches a fault of a page, so that the frame and every other page go on. */
export class ErrorBoundary extends Component<Props, { error: Error | null; path: string }> {
  override state = { error: null as Error | null, path: this.props.path };
  static getDerivedStateFromError = (error: Error) => ({ error });
  static getDerivedStateFromProps = ({ path }: Props, state: { path: string }) =>
    path === state.path ? null : { error: null, path };
  override render(): ReactNode {
    const { error } = this.state;
    return error ? <Trouble error={error} retry={() => this.setState({ error: null })} /> : this.props.children;
  }
}
