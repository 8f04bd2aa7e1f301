import { Alert, Button, Stack } from '@mantine/core';
import { Component } from 'react';
import type { ReactNode } from 'react';

interface Props {
  /** Where we are; going somewhere else tries again. */
  place: string;
  /** What may fail without taking the page with it. */
  children: ReactNode;
}

interface State {
  failed: boolean;
  place: string;
}

/** Shows a plain message and a way to go on when a part of the page fails. */
export class ErrorBoundary extends Component<Props, State> {
  override state: State = { failed: false, place: this.props.place };

  static getDerivedStateFromError(): Partial<State> {
    return { failed: true };
  }

  static getDerivedStateFromProps({ place }: Props, state: State): Partial<State> | null {
    return place === state.place ? null : { failed: false, place };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Stack p="xl" maw={560}>
        <Alert color="copper" title="This page could not be shown">
          What you had stored is kept. Try again, or reload the page.
        </Alert>
        <Button onClick={() => this.setState({ failed: false })} w="fit-content">
          Try again
        </Button>
      </Stack>
    );
  }
}
