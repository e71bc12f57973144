package dev.verbale.imports;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Request;
import dev.verbale.event.ExchangeMade.Response;
import dev.verbale.har.HarReader;
import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.secrets.Redactor;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * An HTTP archive. It says nothing of tests: its exchanges belong to the run. The values of headers that carry credentials are not taken
 * over.
 */
final class HarFile {

    private static final int LONGEST_BODY = 1 << 20;

    private HarFile() {}

    static ForeignResults read(InputStream in, HarReader.BodyFiles files) throws IOException {
        var results = new ForeignResults();
        try {
            results.exchanges.addAll(HarReader.read(in, files));
        } catch (IOException noArchive) {
            results.problems.add(noArchive.getMessage() + ": nothing of it was taken over");
        }
        for (ExchangeEntry one : results.exchanges)
            if (!one.at().equals(Instant.EPOCH)
                    && (results.started == null || one.at().isBefore(results.started))) results.started = one.at();
        return results;
    }

    /** As it stands in a journal whose clock began {@code at} microseconds before. */
    static ExchangeMade event(ExchangeMade made, long at, Redactor redactor) {
        Request request = made.request();
        Response response = made.response();
        return ExchangeMade.of(
                        at,
                        new Request(
                                request.method(),
                                request.url(),
                                masked(request.headers(), redactor),
                                cut(request.body())))
                .client(made.client())
                .protocol(made.protocol())
                .response(
                        response == null
                                ? null
                                : new Response(
                                        response.status(), masked(response.headers(), redactor), cut(response.body())))
                .timing(made.timing())
                .failure(made.failure())
                .trace(made.trace())
                .attributes(made.attributes())
                .build();
    }

    /** By their names; what else is secret in them is masked where they are written. */
    private static List<Header> masked(List<Header> headers, Redactor redactor) {
        List<Header> kept = new ArrayList<>();
        for (Header one : headers)
            kept.add(redactor.isSecretName(one.name()) ? new Header(one.name(), Redactor.MASK) : one);
        return kept;
    }

    private static @Nullable Body cut(@Nullable Body body) {
        if (body == null || body.text() == null || body.text().length() <= LONGEST_BODY) return body;
        int end = Character.isHighSurrogate(body.text().charAt(LONGEST_BODY - 1)) ? LONGEST_BODY - 1 : LONGEST_BODY;
        return new Body(
                body.mediaType(),
                body.size(),
                body.decoded(),
                body.text().substring(0, end),
                true,
                null,
                body.parts(),
                null);
    }
}
