package dev.verbale.journal;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The published schema says what the code writes, and refuses what it does not. */
class JournalSchemaTest {

    private static Schema schema;

    @BeforeAll
    static void read_the_schema() throws Exception {
        String text = Files.readString(Path.of("..", "docs", "journal.schema.json"));
        schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(text);
    }

    @Test
    void every_kind_of_event_is_valid() {
        SampleEvents.all().forEach(event -> {
            LineBuffer line = new EventEncoder(TextFilter.NONE).encode(event);
            assertThat(schema.validate(line.toString(StandardCharsets.UTF_8), InputFormat.JSON))
                    .as(event.toString())
                    .isEmpty();
        });
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"event\":\"retry\",\"at\":1}",
                "{\"event\":\"note\",\"at\":1}",
                "{\"event\":\"note\",\"at\":-1,\"text\":\"early\"}",
                "{\"event\":\"note\",\"at\":1,\"text\":\"x\",\"mood\":\"fine\"}",
                "{\"event\":\"test-ended\",\"at\":1,\"id\":2,\"outcome\":\"fine\"}",
                "{\"event\":\"step-started\",\"at\":1,\"id\":0,\"name\":\"x\"}"
            })
    void anything_else_is_refused(String line) {
        assertThat(schema.validate(line, InputFormat.JSON)).isNotEmpty();
    }
}
