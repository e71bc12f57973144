package dev.verbale.report;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.compare.Baseline;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.reason.FailureReason;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Writes pages. The same run of one journal gives the same bytes; where several are read side by side, which files share a text can differ.
 *
 * @since 0.2.0
 */
public final class Page {

    private Page() {}

    /**
     * A page that was written.
     *
     * @param run what it is of; of tests that need no attention only how they ended, their data and their first failed check
     * @param index the file to open; null where the run was not wanted
     */
    public record Written(Run run, @Nullable Path index) {}

    /**
     * Reads {@code run} and writes its page into {@code folder}, made where it is not there. An earlier page in there is replaced as a
     * whole, and only when the new one is complete; what else lies in there stays. Each test is written as soon as it was read, so that
     * the heap need not hold what happened in all of them.
     *
     * @param isWanted asked when the run was read; where it says no, there is no page
     * @throws FileAlreadyExistsException where {@code folder} holds something that is no page of ours, or that the page has
     *     a file in the place of; it is left alone
     * @throws IOException where something cannot be read or written
     */
    public static Written write(RunFolder run, Path folder, PageOptions options, Predicate<Run> isWanted)
            throws IOException {
        return writeFolder(tests -> RunReader.read(run.path(), tests), folder, options, isWanted);
    }

    /** Writes the page of a run that was read already, whole. */
    public static Path write(Run run, Path folder, PageOptions options) throws IOException {
        writeFolder(tests -> tests.of(run), folder, options, any -> true);
        return folder.resolve("index.html");
    }

    /** Writes the page of {@code run} with nothing but the run. */
    public static Path write(Run run, Path folder) throws IOException {
        return write(run, folder, PageOptions.PLAIN);
    }

    private static Written writeFolder(Reading reading, Path folder, PageOptions options, Predicate<Run> isWanted)
            throws IOException {
        Path target = folder.toAbsolutePath().normalize();
        PageFolder.check(target);
        return inFresh(target, fresh -> {
            Index index = writeAll(reading, fresh, options, isWanted);
            if (index.file() == null) return new Written(index.run(), null);
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(fresh.resolve("index.html")))) {
                index.file().write(out);
            }
            PageFolder.writeList(fresh);
            PageFolder.replace(target, fresh);
            return new Written(index.run(), folder.resolve("index.html"));
        });
    }

    /**
     * Reads {@code run} and writes its page as one HTML file, for who gets it by mail or as an attachment. It is larger than the
     * folder, and is read as a whole before its last tests can be looked at.
     *
     * @param room how many bytes attachments may have in it: images first, then texts, then videos; one for which there is none left is
     *     named, and not in it
     * @throws FileAlreadyExistsException where {@code file} is something else than such a page; it is left alone
     * @throws IOException where something cannot be read or written
     */
    public static Written writeSingleFile(RunFolder run, Path file, PageOptions options, long room) throws IOException {
        return writeFile(tests -> RunReader.read(run.path(), tests), file, options, room);
    }

    /** Writes one file with the page of a run that was read already, whole. */
    public static Path writeSingleFile(Run run, Path file, PageOptions options, long room) throws IOException {
        writeFile(tests -> tests.of(run), file, options, room);
        return file;
    }

    private static Written writeFile(Reading reading, Path file, PageOptions options, long room) throws IOException {
        Path target = file.toAbsolutePath().normalize();
        SingleFile.check(target);
        return inFresh(target, fresh -> {
            Index index = writeAll(reading, fresh, options, any -> true);
            if (index.file() != null) new SingleFile(fresh, room).write(index.file(), target);
            return new Written(index.run(), file);
        });
    }

    /**
     * The style of all pages, as CSS: for what stands beside them.
     *
     * @throws IOException where this build is broken
     */
    public static String stylesheet() throws IOException {
        return IndexFile.own("verbale.css");
    }

    /** How the run comes to be read. */
    @FunctionalInterface
    private interface Reading {
        Run read(DraftedTests tests) throws IOException;
    }

    /** What is written into a folder beside {@code target}, which is gone afterwards. */
    @FunctionalInterface
    private interface Writing {
        Written into(Path fresh) throws IOException;
    }

    private static Written inFresh(Path target, Writing writing) throws IOException {
        Path parent = parent(target);
        Files.createDirectories(parent);
        Path fresh = PageFolder.fresh(parent);
        try {
            return writing.into(fresh);
        } finally {
            FolderTree.delete(fresh);
        }
    }

    private static Path parent(Path target) throws IOException {
        Path parent = target.getParent();
        if (parent == null)
            throw new FileAlreadyExistsException(target.toString(), null, "is the root of a file system");
        return parent;
    }

    /** @param file null where the run was not wanted */
    private record Index(Run run, @Nullable IndexFile file) {}

    /** All but the index. */
    private static Index writeAll(Reading reading, Path folder, PageOptions options, Predicate<Run> isWanted)
            throws IOException {
        try (var drafts = new TestDrafts(folder.resolve("drafts"))) {
            var tests = new DraftedTests(folder, drafts, options);
            Run run = read(reading, tests);
            if (!isWanted.test(run)) return new Index(run, null);
            return new Index(run, writeAll(run, tests, drafts, folder, options));
        }
    }

    private static Run read(Reading reading, DraftedTests tests) throws IOException {
        try {
            return reading.read(tests);
        } catch (UncheckedIOException unwritten) {
            throw unwritten.getCause();
        }
    }

    private static IndexFile writeAll(Run run, DraftedTests tests, TestDrafts drafts, Path folder, PageOptions options)
            throws IOException {
        Path data = Files.createDirectories(folder.resolve("data"));
        List<Row> rows = tests.rows(run);
        List<FailureReason> reasons = FailureReason.of(run);
        EarlierRuns earlier = EarlierRuns.of(
                run, options.earlier() == null ? null : options.earlier().history());
        Comparison news = news(run, reasons, options);
        var rules = new RulesOfTests(run, options.rules());
        List<FailureReason> flaky = FailureReason.ofFlaky(run);
        SideBySide.run(List.of(
                () -> new TestFiles(run, rows, tests.writer()).write(drafts, data),
                () -> {
                    Set<String> briefs = new BriefFiles(run, reasons, options).write(data);
                    new RowFiles(run, rows, reasons, flaky, earlier, news, rules, briefs).write(data);
                    if (earlier != null) EarlierFile.write(earlier, rows, data);
                },
                () -> {
                    var exchanges = new ExchangeFiles(run, rows, drafts);
                    exchanges.write(data);
                    BaselineTests before = before(options, rows, folder, tests.texts());
                    if (before != null) before.write(data);
                    FailureTexts.write(rows, options.content(), tests.texts(), data);
                    new RunFile(run, rows, reasons, flaky, earlier, news, rules, options)
                            .write(exchanges.count(), before, data);
                }));
        tests.texts().write(data);
        return new IndexFile(PlainSummary.of(run, reasons), options.look());
    }

    /** Beside the run that failures are new against; null where there is none. */
    private static @Nullable Comparison news(Run run, List<FailureReason> reasons, PageOptions options)
            throws IOException {
        Baseline baseline = null;
        if (options.baseline() != null) baseline = new Baseline(RunDigest.of(options.baseline()), "");
        else if (options.earlier() != null)
            baseline = options.earlier().find(null, run).orElse(null);
        History others = options.earlier() == null ? null : options.earlier().history();
        return baseline == null ? null : Comparison.of(baseline, RunDigest.of(run, reasons), others);
    }

    private static @Nullable BaselineTests before(PageOptions options, List<Row> rows, Path page, SharedTexts texts) {
        Run baseline = options.baseline();
        return baseline == null ? null : new BaselineTests(baseline, rows, page, options, texts);
    }
}
