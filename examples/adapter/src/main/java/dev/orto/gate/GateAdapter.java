package dev.orto.gate;

import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.List;

/** What this adapter brings: a setting, and the package of the client, whose frames are not the suite's own. */
public final class GateAdapter implements Adapter {

    static final Setting CODES =
            Setting.onOff("verbale.gate.codes", false, "whether the codes that are typed at the gate are recorded");

    /** As the service loader makes it. */
    public GateAdapter() {}

    @Override
    public List<Setting> settings() {
        return List.of(CODES);
    }

    @Override
    public List<String> libraries() {
        return List.of("dev.orto.gate.");
    }
}
