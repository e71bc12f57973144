package dev.orto;

import dev.orto.garden.Fault;
import dev.orto.web.Orto;
import dev.verbale.Verbale;
import java.net.URI;
import java.util.Set;
import org.junit.jupiter.api.extension.AfterEachCallback;
import org.junit.jupiter.api.extension.BeforeEachCallback;
import org.junit.jupiter.api.extension.ExtensionContext;

/** A fresh garden for each test, so that no test finds what another one planted. */
public final class GardenServer implements BeforeEachCallback, AfterEachCallback {

    private static final Set<Fault> FAULTS = Fault.parse(System.getProperty("orto.faults", "none"));

    private Orto orto;

    public static Orto open() {
        Verbale.fact("faults planted", FAULTS.isEmpty() ? "none" : FAULTS);
        return Orto.start(FAULTS);
    }

    public URI address() {
        return orto.address();
    }

    @Override
    public void beforeEach(ExtensionContext context) {
        orto = open();
    }

    @Override
    public void afterEach(ExtensionContext context) {
        orto.close();
    }
}
