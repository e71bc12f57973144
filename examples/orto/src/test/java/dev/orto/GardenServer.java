package dev.orto;

import dev.orto.garden.Fault;
import dev.orto.web.Orto;
import dev.verbale.LogSource;
import dev.verbale.Verbale;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Set;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A fresh garden for each test, so that no test finds what another one planted. */
public final class GardenServer implements BeforeEachCallback, AfterEachCallback {

    private static final Set<Fault> FAULTS = Fault.parse(System.getProperty("orto.faults", "none"));

    private Orto orto;

    public static Orto open() {
        Verbale.fact("garden", FAULTS.isEmpty() ? "as it is" : "variant " + FAULTS.size());
        Orto orto = Orto.start(FAULTS);
        waitForFirstAnswer(orto.address());
        return orto;
    }

    /** A cold server's first response takes seconds on a busy machine; no test should pay for that. */
    private static void waitForFirstAnswer(URI address) {
        var request = HttpRequest.newBuilder(address.resolve("/api/seeds/Basil"))
                .timeout(Duration.ofSeconds(30))
                .build();
        HttpClient.newHttpClient()
                .sendAsync(request, HttpResponse.BodyHandlers.discarding())
                .join();
    }

    public URI address() {
        return orto.address();
    }

    @Override
    public void beforeEach(ExtensionContext context) {
        orto = open();
        Verbale.register(LogSource.file("garden", orto.log()));
    }

    @Override
    public void afterEach(ExtensionContext context) {
        orto.close();
    }
}
