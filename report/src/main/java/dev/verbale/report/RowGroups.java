package dev.verbale.report;

/** What the page calls the groups that a row is in; {@code groups.ts} says the same. */
final class RowGroups {

    private RowGroups() {}

    /** Its containers as they are shown, or its class: a class of tests, or a feature; in its module, where there are several. */
    static String ofClass(Row row) {
        return (row.module().isEmpty() ? "" : row.module() + " › ") + withoutModule(row);
    }

    private static String withoutModule(Row row) {
        if (!row.path().isEmpty()) return String.join(" › ", row.path());
        return row.className() == null ? row.name() : row.className();
    }

    static String ofPackage(Row row) {
        if (row.className() != null) {
            int dot = row.className().lastIndexOf('.');
            return dot < 0 ? "no package" : row.className().substring(0, dot);
        }
        String source = row.source() == null ? "" : row.source();
        int slash = source.lastIndexOf('/');
        return slash < 0 ? "no package" : source.substring(0, slash);
    }
}
