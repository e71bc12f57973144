package dev.verbale.journal.line;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.event.ExchangeMade.Request;
import dev.verbale.event.ExchangeMade.Response;
import dev.verbale.event.ExchangeMade.Timing;
import dev.verbale.event.ExchangeMade.Trace;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Lines of {@link ExchangeMade}. */
final class ExchangeMadeCodec extends EventCodec<ExchangeMade> {

    private final NumberField id = optionalId("id", "by which checks name it");
    private final NumberField in = belongsTo();
    private final TextField thread =
            optionalText("thread", "the name of the thread, where it is not that of the test it belongs to");
    private final TextField client = text("client", "what sent it");
    private final TextField protocol = optionalText("protocol", "such as `HTTP/1.1`");
    private final ObjectField<Request> request = object("request", "", RequestCodec.CODEC);
    private final ObjectField<Response> response = optionalObject("response", "", ResponseCodec.CODEC);
    private final NumberField micros = optionalMicros(
            "micros",
            "until the end of the response; left out where nobody knows, as of redirects that a client reports only afterwards");
    private final NumbersField timings =
            numbers("timings", "parts of that by name, in microseconds", NumberField.LONGEST_MICROS);
    private final TextField failed = optionalText("failed", "why there is no whole response");
    private final ObjectField<Trace> trace = optionalObject("trace", "", TraceCodec.CODEC);
    private final TextsByNameField attributes = textsByName("attributes", "whatever else is known");

    ExchangeMadeCodec() {
        super(ExchangeMade.class, "exchange", "A request and its response. `at` is when it was sent.");
    }

    @Override
    void write(JsonLine line, ExchangeMade event) {
        id.write(line, event.id());
        in.write(line, event.in());
        thread.write(line, event.thread());
        client.write(line, event.client());
        protocol.write(line, event.protocol());
        request.write(line, event.request());
        response.write(line, event.response());
        micros.write(line, event.timing().micros());
        timings.write(line, event.timing().parts());
        failed.write(line, event.failure());
        trace.write(line, event.trace());
        attributes.write(line, event.attributes());
    }

    @Override
    ExchangeMade read(Fields fields) {
        return new ExchangeMade(
                at(fields),
                id.readInt(fields),
                in.readInt(fields),
                thread.readOrNull(fields),
                client.read(fields),
                protocol.readOrNull(fields),
                request.read(fields),
                response.readOrNull(fields),
                new Timing(micros.readOrNull(fields), timings.read(fields)),
                failed.readOrNull(fields),
                trace.readOrNull(fields),
                attributes.read(fields));
    }

    @Override
    public List<ExchangeMade> samples() {
        return List.of(
                new ExchangeMade(
                        7,
                        12,
                        3,
                        "pool-1",
                        "JDK HttpClient",
                        "HTTP/2",
                        new Request(
                                "POST",
                                "https://orto.example/seeds",
                                List.of(new Header("Accept", "*/*"), new Header("a", "")),
                                json("{\"seed\":1}", null)),
                        new Response(201, List.of(new Header("a", "b")), parts()),
                        new Timing(4_200L, Map.of("connect", 900L)),
                        "cut",
                        new Trace("4bf92f3577b34da6a3ce929d0e0e4736", "https://traces.example/4bf9"),
                        Map.of("attempt", "2")),
                new ExchangeMade(
                        7,
                        0,
                        0,
                        null,
                        "",
                        null,
                        new Request("ASK", "tcp://gate", List.of(), null),
                        null,
                        Timing.UNKNOWN,
                        null,
                        null,
                        Map.of()));
    }

    private static Body json(String text, @Nullable String leftOut) {
        return new Body("application/json", 20, 90, text, true, null, List.of(), leftOut);
    }

    private static Body parts() {
        return new Body(
                "multipart/mixed",
                9,
                9,
                null,
                false,
                "tests/a/b/02-b.png",
                List.of(
                        new Part(
                                "remark", null, "Content-Type: text/plain", json("sown", "a coding nobody here reads")),
                        new Part("photo", "bed.png", json("", null))),
                null);
    }
}
