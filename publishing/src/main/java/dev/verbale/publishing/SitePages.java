package dev.verbale.publishing;

import dev.verbale.results.Escaped;
import dev.verbale.viewer.RunRow;
import dev.verbale.viewer.RunsSite;
import java.io.FileNotFoundException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What a site shows beside the pages of its runs: relative addresses, and no need of any header of the host. */
final class SitePages {

    private static final String INDEX = "/index.html";

    private SitePages() {}

    /** The list of runs. */
    static String index(String title, SiteIndex index) throws IOException {
        var rows = new StringBuilder();
        for (PublishedRun run : index.runs()) {
            RunRow row = run.row();
            rows.append("<tr>")
                    .append(row.cells("runs/" + encoded(run.name()) + INDEX, null))
                    .append("</tr>\n");
        }
        return own("site.html")
                .replace("[title]", Escaped.html(title))
                .replace("[style]", RunsSite.stylesheet())
                .replace("[rows]", rows); // last: names of strangers are in there
    }

    /** What leads to pages, by its name in the site: each run, the newest, and that of each branch. */
    static Map<String, String> leading(SiteIndex index) throws IOException {
        Map<String, String> pages = new LinkedHashMap<>();
        Set<String> branches = new HashSet<>();
        for (PublishedRun run : index.runs()) {
            pages.put("runs/" + run.name() + INDEX, leading("../../", run));
            if (branches.isEmpty()) pages.put("latest" + INDEX, leading("../", run));
            if (branches.add(run.branch()))
                for (String of : ofBranch(run.branch())) pages.put(of, leading("../../", run));
        }
        return pages;
    }

    /** The name of what leads to the newest page of a branch; none where a run has no branch. */
    static List<String> ofBranch(String branch) {
        String plain = plain(branch);
        return plain.isEmpty() || plain.equals("index.html") ? List.of() : List.of("latest/" + plain + INDEX);
    }

    /** As a folder can be called, and an address be typed; two that differ only in what cannot be are one. */
    static String plain(String name) {
        return name.replaceAll("[^\\p{L}\\p{N}._-]+", "-").replaceFirst("^[.-]+", "");
    }

    /** By a script, which carries the test along that is named behind the hash; without scripts by the page itself. */
    private static String leading(String up, PublishedRun run) throws IOException {
        String to = up + Site.PAGES + encoded(run.folder()) + INDEX;
        return own("leading.html")
                .replace("[to]", to)
                .replace("[name]", Escaped.html(run.row().summary().name()));
    }

    static String encoded(String part) {
        return RunsSite.encoded(part);
    }

    private static String own(String file) throws IOException {
        try (InputStream in = SitePages.class.getResourceAsStream(file)) {
            if (in == null) throw new FileNotFoundException(file + " is missing in this build of Verbale");
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
