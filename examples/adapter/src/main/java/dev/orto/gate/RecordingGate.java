package dev.orto.gate;

import static java.nio.charset.StandardCharsets.UTF_8;

import dev.verbale.Exchange;
import dev.verbale.spi.Capture;
import dev.verbale.spi.Context;
import java.io.IOException;

/** Whatever the gate does, its caller sees: recording never throws, and asks the gate for nothing more. */
final class RecordingGate implements Gate {

    private final Gate gate;
    private final Capture capture;
    private final Context context;

    RecordingGate(Gate gate, Capture capture, Context context) {
        this.gate = gate;
        this.capture = capture;
        this.context = context;
    }

    @Override
    public String ask(String command) throws IOException {
        String verb = command.split(" ", 2)[0];
        Exchange exchange = capture.exchange(verb, String.valueOf(gate)).client("gate");
        String shown = context.isOn(GateAdapter.CODES) ? command : command.replaceAll("\\d+", "#");
        exchange.requestBody(shown.getBytes(UTF_8), "text/plain");
        try {
            String reply = gate.ask(command);
            exchange.responseBody(reply.getBytes(UTF_8), "text/plain").ended();
            return reply;
        } catch (IOException | RuntimeException | Error failure) {
            exchange.failed(failure);
            throw failure;
        }
    }
}
