package dev.verbale.publishing;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** A site in a folder. */
class FolderSiteTest extends SiteContract {

    @Override
    SiteStore store() throws IOException {
        return SiteStore.of(root.resolve("site").toString());
    }

    @Override
    Set<String> names() throws IOException {
        Path site = root.resolve("site");
        Set<String> names = new TreeSet<>();
        try (var all = Files.walk(site)) {
            for (Path file : all.filter(Files::isRegularFile).toList()) {
                String name = site.relativize(file).toString();
                if (!name.equals(".publishing.lock")) names.add(name);
            }
        }
        return names;
    }

    @Test
    void no_name_and_no_link_leads_out_of_it() throws Exception {
        try (SiteStore store = store()) {
            assertThatThrownBy(() -> store.put("../out", root.resolve("own")))
                    .hasMessageContaining("lies outside the site");
            Files.createSymbolicLink(root.resolve("site/latest"), root);
            assertThatThrownBy(() -> store.put("latest/index.html", root.resolve("own")))
                    .hasMessageContaining("is a link, which is not followed");
        }
    }

    @Test
    void what_is_no_place_for_a_site_is_refused() throws Exception {
        assertThatThrownBy(() -> SiteStore.of("ftp://orto.example/x"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("name a folder, or s3://BUCKET/PREFIX");
        assertThatThrownBy(() -> SiteStore.of(root.resolve("own").toString()))
                .hasMessageContaining("is a file, and a site is a folder");
        assertThatThrownBy(() -> SiteStore.of("s3://Not a bucket/x"))
                .hasMessageContaining("cannot be the name of a bucket");
    }
}
