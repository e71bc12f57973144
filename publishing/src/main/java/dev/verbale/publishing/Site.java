package dev.verbale.publishing;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.Sha256;
import dev.verbale.journal.PlainFile;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.viewer.RunRow;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Publishes runs.
 *
 * <pre>
 * index.html                  the runs, the newest first, without scripts
 * runs.json                   the same for programs, and for the next who publishes
 * runs/RUN/                   leads to the page of a run
 * latest/, latest/BRANCH/     lead to the newest, and to that of a branch
 * pages/RUN-VERSION/          a page; its files never change
 * </pre>
 *
 * <p>A page is there whole before anything leads to it, and what nothing leads to any more goes last. Two who publish at once end in a site that
 * has both. For one thread.
 *
 * @since 0.2.0
 */
public final class Site {

    static final String PAGES = "pages/";

    /** What a version of a page consists of, in its folder; written last, so that it says that the version is whole. */
    private static final String LIST = "files.sha256";

    private static final int ATTEMPTS = 100;
    private static final int VERSION = 10;
    private static final int LONGEST_NAME = 100;

    private final SiteStore store;
    private final String title;
    private final int kept;

    /**
     * @param title of the index
     * @param kept how many runs the site has at the most, beside the newest of each branch
     */
    public Site(SiteStore store, String title, int kept) {
        this.store = store;
        this.title = title;
        this.kept = kept;
    }

    /**
     * What came of it.
     *
     * @param page where the run's page is, as an address within the site
     * @param files of its page
     * @param sent how many of them had to be sent
     * @param gone the names of runs that the site has no more
     */
    public record Published(String page, int files, int sent, List<String> gone) {
        public Published {
            gone = List.copyOf(gone);
        }
    }

    /**
     * Publishes the page of {@code run}.
     *
     * @throws IOException where something cannot be read or written; the site shows what it showed, or the new run, and it may be done again
     */
    public Published publish(RunFolder run, PageOptions options) throws IOException {
        Path work = Files.createTempDirectory("verbale-site");
        try {
            Path page = work.resolve("page");
            Page.Written written = Page.write(run, page, options, any -> true);
            return publish(RunRow.of(written.run()), page);
        } finally {
            FolderTree.delete(work);
        }
    }

    private Published publish(RunRow row, Path page) throws IOException {
        Map<String, Path> files = files(page);
        Map<String, String> sums = new TreeMap<>();
        for (Map.Entry<String, Path> file : files.entrySet()) sums.put(file.getKey(), Sha256.of(file.getValue()));
        String list = list(sums);
        String name = SitePages.plain(row.summary().name());
        if (name.isEmpty())
            throw new IOException("a run that is called '" + row.summary().name() + "' has no address");
        String folder = name.substring(0, Math.min(LONGEST_NAME, name.length())) + "-"
                + Sha256.of(list.getBytes(StandardCharsets.UTF_8)).substring(0, VERSION);

        SiteStore.Stored stored = store.read(SiteIndex.FILE);
        SiteIndex before = SiteIndex.read(stored, store.address(SiteIndex.FILE));
        int sent = send(folder, files, sums, list, before, name);
        for (int attempt = 0; attempt < ATTEMPTS; attempt++) {
            SiteIndex after = before.with(new PublishedRun(folder, row), kept);
            String version = store.replace(SiteIndex.FILE, after.json(), stored == null ? null : stored.version());
            if (version != null) {
                List<PublishedRun> gone = gone(before, after);
                if (!show(version, folder)) { // by who knows no conditions, as some storages do not
                    stored = store.read(SiteIndex.FILE);
                    before = SiteIndex.read(stored, store.address(SiteIndex.FILE));
                    continue;
                }
                for (PublishedRun one : gone) delete(one, after);
                return new Published(
                        "runs/" + SitePages.encoded(name) + "/",
                        files.size(),
                        sent,
                        gone.stream()
                                .map(PublishedRun::name)
                                .filter(one -> !one.equals(name))
                                .toList());
            }
            stored = store.read(SiteIndex.FILE);
            before = SiteIndex.read(stored, store.address(SiteIndex.FILE));
        }
        throw new IOException(
                store.address(SiteIndex.FILE) + " was changed by others " + ATTEMPTS + " times meanwhile");
    }

    private static Map<String, Path> files(Path page) throws IOException {
        Map<String, Path> files = new TreeMap<>();
        try (Stream<Path> all = Files.walk(page)) {
            for (Path file : (Iterable<Path>) all.filter(PlainFile::isThere)::iterator)
                files.put(page.relativize(file).toString().replace('\\', '/'), file);
        } catch (UncheckedIOException unreadable) {
            throw unreadable.getCause();
        }
        return files;
    }

    /** Sends what the site does not have, of this version or of the one before. */
    private int send(
            String folder,
            Map<String, Path> files,
            Map<String, String> sums,
            String list,
            SiteIndex before,
            String name)
            throws IOException {
        String to = PAGES + folder + "/";
        if (store.read(to + LIST) != null) return 0; // it is there whole
        Map<String, String> there = new HashMap<>();
        for (PublishedRun one : before.runs())
            if (one.name().equals(name))
                read(PAGES + one.folder() + "/")
                        .forEach((file, sum) -> there.put(sum, PAGES + one.folder() + "/" + file));
        int sent = 0;
        for (Map.Entry<String, Path> file : files.entrySet()) {
            String same = there.get(sums.get(file.getKey()));
            if (same != null && isCopied(same, to + file.getKey())) continue;
            store.put(to + file.getKey(), file.getValue());
            sent++;
        }
        Path written = Files.createTempFile("verbale-site", ".sha256");
        try {
            Files.writeString(written, list);
            store.put(to + LIST, written);
        } finally {
            Files.delete(written);
        }
        return sent;
    }

    /** Somebody else may delete the version before, as they publish another one. */
    private boolean isCopied(String from, String to) {
        try {
            store.copy(from, to);
            return true;
        } catch (IOException gone) {
            return false;
        }
    }

    private static List<PublishedRun> gone(SiteIndex before, SiteIndex after) {
        return before.runs().stream()
                .filter(one ->
                        after.runs().stream().noneMatch(left -> left.folder().equals(one.folder())))
                .toList();
    }

    /**
     * Makes what leads to pages of what the index is now, until nobody changed that meanwhile.
     *
     * @return whether {@code folder} is still in the index
     */
    private boolean show(String version, String folder) throws IOException {
        String shown = version;
        for (int attempt = 0; attempt < ATTEMPTS; attempt++) {
            SiteStore.Stored now = store.read(SiteIndex.FILE);
            if (now == null) throw new IOException(store.address(SiteIndex.FILE) + " was taken away");
            SiteIndex index = SiteIndex.read(now, store.address(SiteIndex.FILE));
            if (attempt > 0 && now.version().equals(shown))
                return index.runs().stream().anyMatch(one -> one.folder().equals(folder));
            shown = now.version();
            Map<String, String> pages = new LinkedHashMap<>(SitePages.leading(index));
            pages.put("index.html", SitePages.index(title, index)); // last
            for (Map.Entry<String, String> page : pages.entrySet()) write(page.getKey(), page.getValue());
        }
        throw new IOException(
                store.address(SiteIndex.FILE) + " was changed by others " + ATTEMPTS + " times meanwhile");
    }

    /** Where it is another one now. */
    private void write(String name, String html) throws IOException {
        byte[] bytes = html.getBytes(StandardCharsets.UTF_8);
        SiteStore.Stored there = store.read(name);
        if (there != null && java.util.Arrays.equals(there.bytes(), bytes)) return;
        Path fresh = Files.createTempFile("verbale-site", ".html");
        try {
            Files.write(fresh, bytes);
            store.put(name, fresh);
        } finally {
            Files.delete(fresh);
        }
    }

    /** What was published of it, and nothing else. The list goes first: what is left of a version is none. */
    private void delete(PublishedRun gone, SiteIndex after) throws IOException {
        String folder = PAGES + gone.folder() + "/";
        Map<String, String> files = read(folder);
        store.delete(folder + LIST);
        for (String file : files.keySet()) store.delete(folder + file);
        String name = gone.name();
        if (after.runs().stream().noneMatch(one -> one.name().equals(name)))
            store.delete("runs/" + name + "/index.html");
        for (String leading : SitePages.ofBranch(gone.branch()))
            if (after.runs().stream()
                    .noneMatch(one -> SitePages.ofBranch(one.branch()).contains(leading))) store.delete(leading);
    }

    private Map<String, String> read(String folder) throws IOException {
        Map<String, String> sums = new TreeMap<>();
        SiteStore.@Nullable Stored list = store.read(folder + LIST);
        if (list == null) return sums;
        for (String line : new String(list.bytes(), StandardCharsets.UTF_8).split("\n"))
            if (line.length() > 66) sums.put(line.substring(66), line.substring(0, 64));
        return sums;
    }

    private static String list(Map<String, String> sums) {
        var list = new StringBuilder();
        sums.forEach((name, sum) -> list.append(sum).append("  ").append(name).append('\n'));
        return list.toString();
    }
}
