import java.math.BigDecimal;
import java.math.RoundingMode;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Timestamp;
import java.util.ArrayList;
import java.util.List;
import org.apache.spark.sql.Row;
import org.apache.spark.sql.SparkSession;

/**
 * Asks a lake by Spark. Arguments: the lake, the statements of the views, a folder for the answers, and files of questions. Each answer is a text
 * file named as its question, a line a row.
 */
public final class SparkAnswers {

    private static final List<String> TABLES = List.of("runs", "tests", "attempts", "reasons", "steps", "exchanges");

    public static void main(String[] arguments) throws Exception {
        Path lake = Path.of(arguments[0]).toAbsolutePath();
        Path answers = Path.of(arguments[2]);
        try (SparkSession spark = SparkSession.builder()
                .appName("lake")
                .config("spark.sql.session.timeZone", "UTC")
                .config("spark.sql.shuffle.partitions", "2")
                .config("spark.ui.enabled", "false")
                .getOrCreate()) {
            spark.sql("create database lake");
            for (String table : TABLES)
                if (Files.isDirectory(lake.resolve(table)))
                    spark.sql("create view lake." + table + " as select * from parquet.`" + lake.resolve(table) + "`");
            for (String view : Files.readString(Path.of(arguments[1])).replaceAll("(?m)^--.*\\R", "").split(";"))
                if (!view.isBlank() && (!view.contains("lake.exchanges") || Files.isDirectory(lake.resolve("exchanges"))))
                    spark.sql(view.strip());
            for (int i = 3; i < arguments.length; i++) {
                Path question = Path.of(arguments[i]);
                long begun = System.nanoTime();
                List<String> rows = new ArrayList<>();
                for (Row row : spark.sql(Files.readString(question).replaceAll("(?m)^--.*\\R", "")).collectAsList()) rows.add(text(row));
                Files.write(answers.resolve(question.getFileName()), rows);
                System.out.printf("%s: %d rows, %.1f s%n", question.getFileName(), rows.size(), (System.nanoTime() - begun) / 1e9);
            }
            System.out.println("executors: " + (spark.sparkContext().getExecutorMemoryStatus().size() - 1));
        }
    }

    private static String text(Row row) {
        List<String> values = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            Object value = row.get(i);
            if (value instanceof Timestamp time) value = time.toInstant();
            if (value instanceof Number number)
                value = new BigDecimal(number.toString()).setScale(3, RoundingMode.HALF_UP).toPlainString();
            values.add(String.valueOf(value));
        }
        return String.join(" | ", values);
    }
}
