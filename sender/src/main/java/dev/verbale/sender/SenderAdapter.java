package dev.verbale.sender;

import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.List;

/**
 * Brings the settings that say where a run is sent.
 *
 * @since 0.2.0
 */
public final class SenderAdapter implements Adapter {

    static final Setting HUB = Setting.text(
            "verbale.hub",
            "off",
            "the hub that a run is sent to while it goes, such as `https://runs.orto.example`; with a token of the role send in the variable `VERBALE_HUB_TOKEN`");
    static final Setting PROJECT =
            Setting.text("verbale.hub.project", "none", "whose runs they are on the hub, such as `orto`");
    static final Setting RUN = Setting.text(
            "verbale.hub.run",
            "none",
            "what the run is called on the hub; left out, as the build of the CI system, or as its folder");

    /** As {@link java.util.ServiceLoader} makes it. */
    public SenderAdapter() {}

    @Override
    public List<Setting> settings() {
        return List.of(HUB, PROJECT, RUN);
    }
}
