package dev.orto.gate;

import dev.verbale.spi.AdapterRecorder;

/** The one call that a test's author types. */
public final class VerbaleGate {

    private VerbaleGate() {}

    /** A gate that does what {@code gate} does, and records what it is asked and what it replies. */
    public static Gate watch(Gate gate) {
        AdapterRecorder recorder = AdapterRecorder.current();
        return watch(gate, recorder);
    }

    static Gate watch(Gate gate, AdapterRecorder recorder) {
        return gate instanceof RecordingGate ? gate : new RecordingGate(gate, recorder, recorder);
    }
}
