package dev.verbale.imports;

import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.event.LogWritten;
import dev.verbale.event.ProblemMet;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.har.HarReader;
import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.JournalWriter;
import dev.verbale.journal.PlainFile;
import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.secrets.Redactor;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Makes a run of files that other tools wrote: JUnit-style XML ({@code .xml}), TAP ({@code .tap}) and HTTP archives ({@code .har}). What a file does not say is not
 * made up: where there is no time, tests stand one behind the other. What the recorder would mask is masked.
 *
 * @since 0.2.0
 */
public final class RunImporter {

    private static final int LARGEST = 500_000_000;

    private RunImporter() {}

    /**
     * Imports {@code sources} into {@code output}, which must not be there.
     *
     * @param sources files, or folders that are searched for such files
     * @throws ResultsFormatException where there is none of them
     * @throws IOException where a file cannot be read or the run not be written
     */
    public static RunFolder importAll(List<Path> sources, Path output) throws IOException {
        List<Path> files = new ArrayList<>();
        for (Path source : sources) files.addAll(filesOf(source));
        if (files.isEmpty())
            throw new ResultsFormatException(
                    sources.get(0),
                    "there is no file to import",
                    "Imported are JUnit-style XML (.xml), TAP (.tap) and HTTP archives (.har)",
                    "Name such files, or the folder that holds them, such as target/surefire-reports");
        if (Files.exists(output)) throw new FileAlreadyExistsException(output.toString(), null, "is there already");
        var bodies = new Bodies(output);
        Map<Path, ForeignResults> read = new LinkedHashMap<>();
        Instant started = null;
        for (Path file : files) {
            ForeignResults results = read(file, bodies);
            if (results.started == null)
                results.started = Files.getLastModifiedTime(file).toInstant();
            if (started == null || results.started.isBefore(started)) started = results.started;
            read.put(file, results);
        }
        var folder = new RunFolder(output);
        Files.createDirectories(folder.journals());
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("imported from", files.size() == 1 ? "1 file" : files.size() + " files");
        read.values().forEach(results -> results.facts.forEach(facts::putIfAbsent));
        new RunDescription(JournalFormat.VERSION, folder.name(), started == null ? Instant.EPOCH : started, facts)
                .writeIfAbsent(folder.runFile());
        int number = 1;
        for (var one : read.entrySet()) {
            ForeignResults results = one.getValue();
            boolean isFirst = true;
            for (String module : modules(results)) {
                var journal = new Journal(folder, number++, one.getKey(), results, module);
                if (isFirst) journal.beside();
                journal.write();
                isFirst = false;
            }
        }
        return folder;
    }

    /** A journal is of one module, that of the JVM that it would have come from. */
    private static Collection<String> modules(ForeignResults results) {
        Set<String> modules = new LinkedHashSet<>();
        for (ForeignTest test : results.tests) modules.add(test.module);
        return modules.isEmpty() ? Set.of("") : modules;
    }

    private static List<Path> filesOf(Path source) throws IOException {
        if (!Files.isDirectory(source)) {
            if (!Files.exists(source))
                throw new ResultsFormatException(
                        source, "there is no such file", "Nothing was imported", "Name another");
            return List.of(source);
        }
        try (Stream<Path> all = Files.walk(source)) {
            return all.filter(PlainFile::isThere)
                    .filter(RunImporter::isKnown)
                    .sorted()
                    .toList();
        }
    }

    private static boolean isKnown(Path file) {
        String name = String.valueOf(file.getFileName()).toLowerCase(Locale.ROOT);
        return name.endsWith(".xml") || name.endsWith(".tap") || name.endsWith(".har");
    }

    private static ForeignResults read(Path file, HarReader.BodyFiles bodies) throws IOException {
        byte[] bytes = PlainFile.bytes(file, LARGEST);
        String name = String.valueOf(file.getFileName());
        if (name.toLowerCase(Locale.ROOT).endsWith(".tap"))
            return TapFile.read(
                    name.substring(0, name.length() - 4),
                    new String(bytes, StandardCharsets.UTF_8).lines().toList());
        if (name.toLowerCase(Locale.ROOT).endsWith(".har"))
            return HarFile.read(new ByteArrayInputStream(bytes), bodies);
        return JUnitXmlFile.read(new ByteArrayInputStream(bytes));
    }

    /** Files of bodies that are no text, in the folder of the run. */
    private static final class Bodies implements HarReader.BodyFiles {
        private static final String FOLDER = "bodies";
        private final Path run;
        private int count;

        Bodies(Path run) {
            this.run = run;
        }

        @Override
        public String kept(byte[] bytes) throws IOException {
            String name = FOLDER + "/" + ++count + ".bin";
            Path file = run.resolve(name);
            Files.createDirectories(file.getParent());
            Files.write(file, bytes);
            return name;
        }
    }

    /** Of one file and one module. */
    private static final class Journal {
        private final Path file;
        private final ForeignResults results;
        private final String module;
        private final Redactor redactor = new Redactor(List.of(), List.of());
        private final JournalWriter writer;
        private final Map<String, Integer> rows = new HashMap<>();
        private long at = 1;
        private int id;

        private Journal(RunFolder folder, int number, Path file, ForeignResults results, String module)
                throws IOException {
            this.file = file;
            this.results = results;
            this.module = module;
            String worker = "import-" + number;
            Instant wall = results.started == null ? Instant.EPOCH : results.started;
            writer = JournalWriter.open(
                    folder.journal(worker),
                    JournalOpened.of(JournalFormat.VERSION, worker, wall)
                            .module(module)
                            .verbale("imported")
                            .build(),
                    redactor::redacted);
        }

        /** What the file holds beside its tests. */
        private void beside() throws IOException {
            for (String problem : results.problems)
                writer.append(new ProblemMet(at, file.getFileName() + ", " + problem));
            for (String line : results.output)
                writer.append(LogWritten.of(at, 0, line).build());
            for (ExchangeEntry exchange : results.exchanges) {
                long after = results.started == null || exchange.at().equals(Instant.EPOCH)
                        ? at
                        : Math.max(at, ChronoUnit.MICROS.between(results.started, exchange.at()));
                writer.append(HarFile.event(exchange.made(), after, redactor));
            }
        }

        private void write() throws IOException {
            for (ForeignTest test : results.tests) {
                if (!test.module.equals(module)) continue;
                if (test.isContainer && !test.isCut) {
                    container(test);
                    continue;
                }
                String key = test.key == null ? key(test) : test.key;
                for (ForeignTest.Attempt earlier : test.earlier)
                    attempt(test, key, earlier.outcome(), null, earlier.failure(), false);
                attempt(test, key, test.ended(), test.reason, test.failure, true);
            }
            if (!results.isTorn) writer.append(new JournalEnded(at, 0, Map.of(), 0));
        }

        private void container(ForeignTest test) throws IOException {
            int number = ++id;
            String key = test.key == null ? test.suite : test.key;
            writer.append(new ContainerStarted(at, number, 0, key, test.name, test.suite, null));
            at += Math.max(1, test.micros);
            writer.append(ContainerEnded.of(at, number, test.ended())
                    .failure(test.failure)
                    .build());
        }

        /** Rows of data often have one name: they are tests of their own, told apart by their order. */
        private String key(ForeignTest test) {
            String key = test.suite + "." + test.name;
            int row = rows.merge(key, 1, Integer::sum);
            return row == 1 ? key : key + "#" + row;
        }

        private void attempt(
                ForeignTest test,
                String key,
                Outcome outcome,
                @Nullable String reason,
                @Nullable Failure failure,
                boolean isLast)
                throws IOException {
            int number = ++id;
            boolean isClass = test.suite.matches("[\\p{L}_$][\\p{L}\\p{N}_$]*(\\.[\\p{L}_$][\\p{L}\\p{N}_$]*)++");
            String method = test.methodName;
            if (method == null && isClass && test.name.matches("[\\p{L}_$][\\p{L}\\p{N}_$]*")) method = test.name;
            String name = isClass ? test.name : test.suite + " › " + test.name;
            writer.append(TestStarted.of(at, number, key, name)
                    .className(isClass ? test.suite : null)
                    .methodName(method)
                    .thread("main")
                    .build());
            if (isLast) {
                for (var property : test.properties.entrySet())
                    writer.append(new DataNamed(at, number, property.getKey(), property.getValue()));
                for (String output : test.output)
                    writer.append(LogWritten.of(at, number, output).build());
            }
            at += isLast ? Math.max(1, test.micros) : 1;
            if (isLast && test.isCut) {
                if (failure != null) // as far as it stands there
                writer.append(CheckMade.of(at, number, "what stands before the tear", outcome)
                        .failure(failure)
                        .build());
                return;
            }
            writer.append(TestEnded.of(at, number, outcome)
                    .reason(reason)
                    .failure(failure)
                    .build());
        }
    }
}
