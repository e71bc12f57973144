package dev.verbale.video;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/**
 * FFmpeg, as a program of its own: a crash of it costs a video and nothing else. Found where the setting says, on the
 * {@code PATH}, or in the optional artifact {@code org.bytedeco:ffmpeg}.
 *
 * @param program its file
 * @param libraries the folder of its own libraries, or null where the system has them
 */
record Encoder(Path program, @Nullable Path libraries) {

    private static final int PROBE_SECONDS = 10;

    /** The first that answers; empty where there is none. */
    static Optional<Encoder> find(String program) {
        List<Encoder> candidates = new ArrayList<>();
        if (!program.isEmpty()) candidates.add(new Encoder(Path.of(program), null));
        for (String folder : System.getenv().getOrDefault("PATH", "").split(java.io.File.pathSeparator)) {
            if (folder.isEmpty()) continue;
            for (String name : List.of("ffmpeg", "ffmpeg.exe")) {
                Path file = Path.of(folder, name);
                if (Files.isExecutable(file)) candidates.add(new Encoder(file, null));
            }
        }
        Optional<Encoder> first = candidates.stream().filter(Encoder::answers).findFirst();
        return first.isPresent() ? first : ofArtifact().filter(Encoder::answers);
    }

    private static Optional<Encoder> ofArtifact() {
        try {
            Path program = Path.of(org.bytedeco.javacpp.Loader.load(org.bytedeco.ffmpeg.ffmpeg.class));
            return Optional.of(new Encoder(program, program.getParent()));
        } catch (LinkageError | RuntimeException absent) {
            return Optional.empty();
        }
    }

    private boolean answers() {
        try {
            Process probe = builder(List.of("-hide_banner", "-loglevel", "error", "-h", "encoder=libvpx-vp9"))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            if (!probe.waitFor(PROBE_SECONDS, TimeUnit.SECONDS)) {
                probe.destroyForcibly();
                return false;
            }
            return probe.exitValue() == 0;
        } catch (IOException broken) {
            return false;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    /**
     * Starts to make a WebM video with VP9 of {@code frames}, each at its own time: one thread, for speed before size.
     * What it says goes to {@code log}.
     */
    Process start(Path frames, Path video, Path log) throws IOException {
        return builder(List.of(
                        "-hide_banner",
                        "-nostdin",
                        "-loglevel",
                        "error",
                        "-y",
                        "-i",
                        frames.toString(),
                        "-an",
                        "-fps_mode",
                        "passthrough",
                        "-enc_time_base",
                        "1/1000",
                        "-pix_fmt",
                        "yuv420p",
                        "-c:v",
                        "libvpx-vp9",
                        "-deadline",
                        "realtime",
                        "-cpu-used",
                        "8",
                        "-threads",
                        "1",
                        "-crf",
                        "34",
                        "-b:v",
                        "0",
                        "-g",
                        "40",
                        video.toString()))
                .redirectErrorStream(true)
                .redirectOutput(log.toFile())
                .start();
    }

    private ProcessBuilder builder(List<String> arguments) {
        List<String> command = new ArrayList<>();
        command.add(program.toString());
        command.addAll(arguments);
        var builder = new ProcessBuilder(command);
        boolean linux =
                System.getProperty("os.name", "").toLowerCase(Locale.ROOT).contains("linux");
        if (libraries != null && linux) builder.environment().put("LD_LIBRARY_PATH", libraries.toString());
        return builder;
    }
}
