package dev.verbale.internal;

import dev.verbale.recorder.Recorder;
import java.util.List;

/** What the settings say of exchanges. */
final class ExchangeKeeping {

    private static final int MOST_BYTES = 1_000_000;

    final int mostBytes;
    final TraceContext traces;

    ExchangeKeeping(Recorder recorder, Problems problems) {
        String most = recorder.setting(Settings.EXCHANGE_BYTES, String.valueOf(MOST_BYTES), List.of());
        boolean number = most.matches("\\d{1,9}");
        if (!number)
            problems.add(Settings.EXCHANGE_BYTES + ": '" + most + "' is no whole number. Using " + MOST_BYTES + ".");
        mostBytes = number ? Integer.parseInt(most) : MOST_BYTES;
        traces = new TraceContext(
                recorder.setting(Settings.TRACE_SEND, "false", List.of("true", "false"))
                        .equals("true"),
                recorder.setting(Settings.TRACE_ADDRESS, "", List.of()));
    }
}
