package dev.verbale.benchmarks;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.JsonEncoder;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.util.LogbackMDCAdapter;
import ch.qos.logback.core.FileAppender;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Step;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.function.Supplier;
import org.apache.logging.log4j.core.config.Configurator;
import org.apache.logging.log4j.core.config.builder.api.ConfigurationBuilder;
import org.apache.logging.log4j.core.config.builder.api.ConfigurationBuilderFactory;
import org.apache.logging.log4j.core.config.builder.impl.BuiltConfiguration;

/** The things that are compared: each takes a line and has it with the operating system when the call returns. */
final class Sinks {

    private static final String TEXT =
            "Monday waters Ada, Thursday waters Dario, and the rest of the week is as it was ";

    private Sinks() {}

    /** One thread's way into a sink; {@code n} keeps the lines apart. */
    interface Sink {
        void write(int n);
    }

    /** The bytes of a recorded log line, written and nothing else. */
    static Supplier<Sink> bare(Path folder) {
        byte[] line = ("{\"event\":\"log\",\"at\":1234567,\"in\":1234,\"text\":\"" + TEXT + "12345\"}\n")
                .getBytes(StandardCharsets.UTF_8);
        FileOutputStream out = open(folder.resolve("bare"));
        return () -> n -> {
            try {
                out.write(line);
            } catch (IOException failed) {
                throw new UncheckedIOException(failed);
            }
        };
    }

    private static FileOutputStream open(Path file) {
        try {
            return new FileOutputStream(file.toFile(), true);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    private static AdapterRecorder recorder(Path folder) {
        return AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(folder.resolve("verbale")).withSummaryLine(false));
    }

    private static void startTest(AdapterRecorder recorder) {
        String name = Thread.currentThread().getName();
        recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build());
    }

    /** A log line in a test. */
    static Supplier<Sink> logLines(Path folder) {
        AdapterRecorder recorder = recorder(folder);
        return () -> {
            startTest(recorder);
            String[] lines = lines();
            return n -> recorder.log(lines[n & 1023]);
        };
    }

    /** The start and the end of a step in a test: two events a call. */
    static Supplier<Sink> steps(Path folder) {
        AdapterRecorder recorder = recorder(folder);
        return () -> {
            startTest(recorder);
            String[] lines = lines();
            return n -> {
                Step step = recorder.startStep(lines[n & 1023]);
                step.passed();
            };
        };
    }

    /** An attachment of a kilobyte in a test. */
    static Supplier<Sink> attachments(Path folder) {
        AdapterRecorder recorder = recorder(folder);
        byte[] content = TEXT.repeat(12).getBytes(StandardCharsets.UTF_8);
        return () -> {
            startTest(recorder);
            return n -> recorder.attach("rota.csv", content, MediaType.CSV);
        };
    }

    /** Takes any words. */
    interface Words {
        void write(String words);
    }

    /** Logback's file appender with its JSON encoder, flushing at once. */
    static Supplier<Sink> logback(Path folder) {
        Words words = logbackWords(folder);
        String[] lines = lines();
        return () -> n -> words.write(lines[n & 1023]);
    }

    /** Writes any words as {@link #logback} writes its own. */
    static Words logbackWords(Path folder) {
        var context = new LoggerContext();
        context.setMDCAdapter(new LogbackMDCAdapter()); // without one the encoder fails on every line, in silence
        var encoder = new JsonEncoder();
        encoder.setContext(context);
        encoder.start();
        var appender = new FileAppender<ILoggingEvent>();
        appender.setContext(context);
        appender.setEncoder(encoder);
        appender.setFile(folder.resolve("logback.json").toString());
        appender.setImmediateFlush(true);
        appender.start();
        var logger = context.getLogger("garden");
        logger.setLevel(Level.INFO);
        logger.setAdditive(false);
        logger.addAppender(appender);
        return logger::info;
    }

    /** Log4j's file appender with its JSON template layout, flushing at once. */
    static Supplier<Sink> log4j(Path folder) {
        ConfigurationBuilder<BuiltConfiguration> builder = ConfigurationBuilderFactory.newConfigurationBuilder();
        builder.add(builder.newAppender("file", "File")
                .addAttribute("fileName", folder.resolve("log4j.json").toString())
                .addAttribute("immediateFlush", true)
                .add(builder.newLayout("JsonTemplateLayout")
                        .addAttribute("eventTemplateUri", "classpath:EcsLayout.json")));
        builder.add(builder.newRootLogger(org.apache.logging.log4j.Level.INFO).add(builder.newAppenderRef("file")));
        var context = Configurator.initialize(builder.build());
        var logger = context.getLogger("garden");
        String[] lines = lines();
        return () -> n -> logger.info(lines[n & 1023]);
    }

    private static String[] lines() {
        var lines = new String[1024];
        for (int i = 0; i < lines.length; i++) lines[i] = TEXT + (10_000 + i);
        return lines;
    }

    static Path folder() {
        try {
            return Files.createTempDirectory(Path.of("target").toAbsolutePath(), "bench");
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
