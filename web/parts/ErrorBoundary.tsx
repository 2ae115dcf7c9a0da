import { Component, type ReactNode } from 'react';
import { Trouble } from './Notices.tsx';

/** Keeps a page that fails to draw from taking the whole application with it. */
export class ErrorBoundary extends Component<{ children: ReactNode }, { error: Error | null }> {
  override state = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    if (this.state.error === null) return this.props.children;
    return <Trouble error={this.state.error} retry={() => this.setState({ error: null })} />;
  }
}
