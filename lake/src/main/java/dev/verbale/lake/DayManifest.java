package dev.verbale.lake;

import dev.verbale.folder.WholeFile;
import dev.verbale.json.JsonIn;
import dev.verbale.json.JsonOut;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * Which files of a day of a project count, and which runs are in them: JSON, one object. It is replaced as one; files that it does not name are
 * no part of the lake.
 *
 * @param runs by their ids
 * @param files by their tables: names of files in the folder of this day
 */
record DayManifest(Partition partition, Map<Long, StoredRun> runs, Map<LakeTable, List<String>> files) {

    static final String FOLDER = "manifest";
    static final int VERSION = 1;
    private static final String SUFFIX = ".json";

    /**
     * A run in it.
     *
     * @param tests how many
     * @param isWhole whether its folder was at hand: all attempts and exchanges are in the files
     */
    record StoredRun(String name, Instant started, int tests, boolean isComplete, boolean isWhole) {

        /** Whether {@code other}, of the same run, says more. */
        boolean isLessThan(StoredRun other) {
            if (isWhole != other.isWhole) return other.isWhole;
            if (isComplete != other.isComplete) return other.isComplete;
            return tests < other.tests;
        }
    }

    private static final Pattern NAME = Pattern.compile(
            FOLDER + "/" + Partition.PROJECT + "[\\w.-]+/" + Partition.DAY + "\\d{4}-\\d\\d-\\d\\d\\.json");

    /** In the folder of its day, and nowhere else. */
    private static final Pattern FILE = Pattern.compile("[\\w-][\\w.-]*");

    /** Its own name below the lake, with forward slashes. */
    static String name(Partition partition) {
        return FOLDER + "/" + partition.folder() + SUFFIX;
    }

    /** Whether a file of this name is one. */
    static boolean isName(String name) {
        return NAME.matcher(name).matches();
    }

    /** Those of its files, below the lake, with forward slashes. */
    Set<String> fileNames() {
        Set<String> names = new LinkedHashSet<>();
        files.forEach(
                (table, all) -> all.forEach(one -> names.add(table.word() + "/" + partition.folder() + "/" + one)));
        return names;
    }

    private static Path file(Path lake, Partition partition) {
        return lake.resolve(name(partition));
    }

    /** One without anything where there is none. */
    static DayManifest read(Path lake, Partition partition) throws IOException {
        Path file = file(lake, partition);
        try {
            return parsed(file, partition, Files.readAllBytes(file));
        } catch (NoSuchFileException none) {
            return new DayManifest(partition, new TreeMap<>(), new TreeMap<>());
        }
    }

    /** The names of all projects that have days, in order, whatever is in them. */
    static List<String> projects(Path lake) throws IOException {
        List<String> names = new ArrayList<>();
        Path folder = lake.resolve(FOLDER);
        if (!Files.isDirectory(folder)) return names;
        for (Path project : listed(folder)) {
            String name = project.getFileName().toString();
            if (name.startsWith(Partition.PROJECT)
                    && Files.isDirectory(project)
                    && !listed(project).isEmpty()) names.add(name.substring(Partition.PROJECT.length()));
        }
        return names;
    }

    /** All of a lake, by project and day. */
    static List<DayManifest> all(Path lake) throws IOException {
        return all(lake, null);
    }

    /** Those of a project, by day, whatever others are like; null for all. */
    static List<DayManifest> all(Path lake, @Nullable String wanted) throws IOException {
        List<DayManifest> all = new ArrayList<>();
        Path folder = lake.resolve(FOLDER);
        if (!Files.isDirectory(folder)) return all;
        for (Path project : listed(folder)) {
            String name = project.getFileName().toString();
            if (!name.startsWith(Partition.PROJECT) || !Files.isDirectory(project)) continue;
            if (wanted != null && !name.equals(Partition.PROJECT + wanted)) continue;
            for (Path file : listed(project)) {
                String day = file.getFileName().toString();
                if (!day.startsWith(Partition.DAY) || !day.endsWith(SUFFIX)) continue;
                all.add(parsed(file, partition(file, name, day), Files.readAllBytes(file)));
            }
        }
        return all;
    }

    /** The one with this name below a lake, see {@link #isName}. */
    static DayManifest named(Path lake, String name) throws IOException {
        Path file = lake.resolve(name);
        String[] parts = name.split("/", -1);
        return parsed(file, partition(file, parts[1], parts[2]), Files.readAllBytes(file));
    }

    /** The project of the one with this name. */
    static String project(String name) {
        return name.split("/", -1)[1].substring(Partition.PROJECT.length());
    }

    private static Partition partition(Path file, String project, String day) throws LakeException {
        try {
            String date = day.substring(Partition.DAY.length(), day.length() - SUFFIX.length());
            return new Partition(project.substring(Partition.PROJECT.length()), LocalDate.parse(date));
        } catch (DateTimeParseException odd) {
            throw new LakeException(file, "its name is no day, such as day=2026-12-01.json. Move it away");
        }
    }

    private static List<Path> listed(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.sorted().toList();
        }
    }

    void write(Path lake) throws IOException {
        WholeFile.write(file(lake, partition), fresh -> {
            try (OutputStream out = Files.newOutputStream(fresh);
                    JsonGenerator json = JsonOut.generator(out)) {
                write(json);
            }
            return true;
        });
    }

    private void write(JsonGenerator json) {
        json.writeStartObject();
        json.writeNumberProperty("verbale-lake", VERSION);
        json.writeArrayPropertyStart("runs");
        runs.forEach((id, run) -> {
            json.writeStartObject();
            json.writeNumberProperty("run_id", id);
            json.writeStringProperty("run", run.name());
            json.writeStringProperty("run_started", run.started().toString());
            json.writeNumberProperty("tests", run.tests());
            json.writeBooleanProperty("complete", run.isComplete());
            json.writeBooleanProperty("whole", run.isWhole());
            json.writeEndObject();
        });
        json.writeEndArray();
        json.writeObjectPropertyStart("files");
        files.forEach((table, names) -> {
            json.writeArrayPropertyStart(table.word());
            names.forEach(json::writeString);
            json.writeEndArray();
        });
        json.writeEndObject();
        json.writeEndObject();
    }

    private static DayManifest parsed(Path file, Partition partition, byte[] bytes) throws LakeException {
        var manifest = new DayManifest(partition, new TreeMap<>(), new TreeMap<>());
        try (JsonParser json = JsonIn.parser(bytes)) {
            if (json.nextToken() != JsonToken.START_OBJECT) throw odd(file);
            boolean isKnown = false;
            for (String name = json.nextName(); name != null; name = json.nextName()) {
                json.nextToken();
                switch (name) {
                    case "verbale-lake" -> {
                        isKnown = true;
                        if (json.getIntValue() > VERSION)
                            throw new LakeException(file, "a newer Verbale wrote it. Use that one");
                    }
                    case "runs" -> {
                        while (json.nextToken() == JsonToken.START_OBJECT) run(json, manifest.runs);
                    }
                    case "files" -> files(file, json, manifest.files);
                    default -> json.skipChildren();
                }
            }
            if (!isKnown || json.currentToken() != JsonToken.END_OBJECT) throw odd(file);
        } catch (JacksonException | DateTimeParseException | ClassCastException broken) {
            throw odd(file);
        }
        return manifest;
    }

    private static void run(JsonParser json, Map<Long, StoredRun> runs) {
        Map<String, Object> values = new LinkedHashMap<>();
        for (String name = json.nextName(); name != null; name = json.nextName()) {
            JsonToken value = json.nextToken();
            if (value == JsonToken.VALUE_NUMBER_INT) values.put(name, json.getLongValue());
            else if (value.isBoolean()) values.put(name, value == JsonToken.VALUE_TRUE);
            else if (value == JsonToken.VALUE_STRING) values.put(name, json.getString());
            else json.skipChildren();
        }
        runs.put(
                (Long) values.getOrDefault("run_id", 0L),
                new StoredRun(
                        (String) values.getOrDefault("run", ""),
                        Instant.parse((String) values.getOrDefault("run_started", "")),
                        (int) (long) (Long) values.getOrDefault("tests", 0L),
                        (Boolean) values.getOrDefault("complete", false),
                        (Boolean) values.getOrDefault("whole", false)));
    }

    private static void files(Path file, JsonParser json, Map<LakeTable, List<String>> files) throws LakeException {
        for (String name = json.nextName(); name != null; name = json.nextName()) {
            json.nextToken();
            List<String> names = new ArrayList<>();
            while (json.nextToken() == JsonToken.VALUE_STRING) {
                if (!FILE.matcher(json.getString()).matches()) throw odd(file);
                names.add(json.getString());
            }
            for (LakeTable table : LakeTable.values()) if (table.word().equals(name)) files.put(table, names);
        }
    }

    private static LakeException odd(Path file) {
        return new LakeException(
                file,
                "it is no list of the files of a day. Without it the files of that day count for nothing: bring it back, or delete it and add the runs of that day again");
    }
}
