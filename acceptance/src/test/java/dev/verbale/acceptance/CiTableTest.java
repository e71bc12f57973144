package dev.verbale.acceptance;

import dev.verbale.ci.CiSystem;
import dev.verbale.testing.MarkedPage;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** The guide's table of what is known of a job is made of what the recorder reads. */
class CiTableTest {

    private static final Path PAGE = Path.of("..", "docs", "ci.md");

    @Test
    void the_page_has_every_system_with_every_fact_and_its_variables() throws Exception {
        MarkedPage.assertHas(PAGE, "systems", table(), "mvn test -pl acceptance -am -Dtest=CiTableTest");
    }

    private static String table() {
        List<String> facts = CiSystem.FACTS;
        var text = new StringBuilder("| system, known by | " + String.join(" | ", facts) + " |\n");
        text.append("|---".repeat(facts.size() + 1)).append("|\n");
        for (CiSystem system : CiSystem.ALL) {
            text.append("| ")
                    .append(system.name())
                    .append(", `")
                    .append(system.sign())
                    .append('`');
            for (String fact : facts)
                text.append(" | ")
                        .append(system.templates(fact).stream()
                                .map(template -> template.matches("\\{[A-Z_0-9]+}")
                                        ? template.substring(1, template.length() - 1)
                                        : template)
                                .map(template -> "`" + template + "`")
                                .collect(Collectors.joining(", ")));
            text.append(" |\n");
        }
        return text.toString();
    }
}
