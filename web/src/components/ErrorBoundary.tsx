import { Alert, Button, Stack } from '@mantine/core';
import { Component } from 'react';
import type { ReactNode } from 'react';

interface Props {
  children: ReactNode;
}

/** Shows a plain message and a way to go on when a part of the page fails. */
export class ErrorBoundary extends Component<Props, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
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
