package dev.verbale.journal.line;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import dev.verbale.event.Event;
import dev.verbale.json.TextFilter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What is published of journals is what the code writes and reads. */
class JournalSchemaTest {

    private static final Path SCHEMA = Path.of("..", "docs", "journal.schema.json");
    private static final Path FORMAT = Path.of("..", "docs", "format.md");
    private static final String BEGIN = "<!-- made from the codecs: begin -->\n";
    private static final String END = "<!-- made from the codecs: end -->\n";

    private static Schema schema;

    @BeforeAll
    static void read_the_schema() throws Exception {
        if (Boolean.getBoolean("verbale.docs.write")) write();
        schema = SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                .getSchema(Files.readString(SCHEMA));
    }

    private static void write() throws IOException {
        Files.writeString(SCHEMA, FormatDocuments.schema());
        String format = Files.readString(FORMAT);
        Files.writeString(
                FORMAT,
                format.substring(0, format.indexOf(BEGIN) + BEGIN.length())
                        + FormatDocuments.tables()
                        + format.substring(format.indexOf(END)));
    }

    @Test
    void the_schema_and_the_tables_are_those_of_the_codecs() throws Exception {
        String how = "made anew by: mvn test -pl format -Dtest=JournalSchemaTest -Dverbale.docs.write=true";
        assertThat(Files.readString(SCHEMA)).as(how).isEqualTo(FormatDocuments.schema());
        assertThat(Files.readString(FORMAT)).as(how).contains(BEGIN + FormatDocuments.tables() + END);
    }

    @Test
    void every_kind_of_event_is_valid() {
        for (EventCodec<?> codec : EventCodecs.all())
            for (Event event : codec.samples())
                assertThat(schema.validate(line(event), InputFormat.JSON))
                        .as(event.toString())
                        .isEmpty();
    }

    /** A field that no sample has would be tested by nobody. */
    @Test
    void the_first_sample_of_each_kind_has_every_field_that_is_declared() {
        for (EventCodec<?> codec : EventCodecs.all()) {
            String line = line(codec.samples().get(0));
            Fields fields = Fields.parse(line.getBytes(StandardCharsets.UTF_8), 0, line.length(), new KnownPieces());
            assertThat(fields.names())
                    .as(codec.word())
                    .containsAll(codec.fields().stream().map(Field::name).toList());
        }
    }

    private static String line(Event event) {
        return new EventEncoder(TextFilter.NONE, new RepeatedTexts())
                .encode(event)
                .toString(StandardCharsets.UTF_8);
    }

    /** The schema and the reader agree on each: a reader in another language must not refuse what ours shows. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"event\":\"log\",\"at\":1,\"text\":\"x\"}",
                "{\"event\":\"log\",\"at\":1,\"text\":\"x\",\"mood\":\"fine\"}",
                "{\"event\":\"retry\",\"at\":1,\"id\":4}",
                "{\"event\":\"test-ended\",\"at\":1,\"id\":2,\"outcome\":\"undecided\"}",
                "{\"event\":\"step-started\",\"at\":1,\"id\":3,\"in\":0,\"name\":\"x\",\"kind\":\"gherkin\"}",
                "{\"event\":\"attachment\",\"at\":1,\"name\":\"x\",\"kind\":\"hologram\",\"mediaType\":\"\",\"file\":\"a\",\"size\":0}",
                "{\"event\":\"test-ended\",\"at\":1,\"id\":2,\"outcome\":\"failed\",\"failure\":{\"id\":3}}"
            })
    void what_the_reader_reads_is_allowed(String line) {
        byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
        assertThat(EventDecoder.decode(bytes, bytes.length).event()).isNotNull();
        assertThat(schema.validate(line, InputFormat.JSON)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "{\"at\":1}",
                "{\"event\":\"retry\"}",
                "{\"event\":\"log\",\"at\":1}",
                "{\"event\":\"log\",\"at\":-1,\"text\":\"early\"}",
                "{\"event\":\"log\",\"at\":9223372036854775807,\"text\":\"late\"}",
                "{\"event\":\"log\",\"at\":1,\"text\":4}",
                "{\"event\":\"test-ended\",\"at\":1,\"id\":2}",
                "{\"event\":\"step-started\",\"at\":1,\"id\":0,\"name\":\"x\"}",
                "{\"event\":\"exchange\",\"at\":1,\"client\":\"c\",\"request\":{\"url\":\"u\"}}"
            })
    void anything_else_is_refused_by_both(String line) {
        byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
        assertThatThrownBy(() -> EventDecoder.decode(bytes, bytes.length)).isInstanceOf(MalformedLine.class);
        assertThat(schema.validate(line, InputFormat.JSON)).isNotEmpty();
    }
}
