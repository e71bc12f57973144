package dev.verbale.video;

import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.List;

/**
 * What this adapter brings: its settings.
 *
 * @since 0.2.0
 */
public final class VideoAdapter implements Adapter {

    static final Setting VIDEO = Setting.oneOf(
            "verbale.video",
            "failures",
            List.of("failures", "all", "none"),
            "which videos are kept: `failures`, `all`, `none`");
    static final Setting FFMPEG = Setting.text(
            "verbale.video.ffmpeg",
            "looked for",
            "the encoder's program, where it is not on the `PATH` and not the optional artifact");
    static final Setting UPDATE = Setting.onOff(
            "verbale.visual.update",
            false,
            "`true` writes the images that visual checks compare with, instead of comparing");

    /** As {@link java.util.ServiceLoader} makes it. */
    public VideoAdapter() {}

    @Override
    public List<Setting> settings() {
        return List.of(VIDEO, FFMPEG, UPDATE);
    }
}
