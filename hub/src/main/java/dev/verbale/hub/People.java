package dev.verbale.hub;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jdbi.v3.core.Jdbi;
import org.jspecify.annotations.Nullable;

/** What people may whom a provider of OpenID Connect or a trusted proxy names: it has asked them who they are. */
final class People {

    /** Everybody whom it lets in. */
    static final String EVERYBODY = "*";

    private static final int LONGEST_NAME = 200;

    private final Jdbi jdbi;

    People(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    private record Granted(@Nullable String project, String role) {}

    /** Whether one person can be called that, whoever names them. */
    static boolean isName(String name) {
        return !name.isBlank() && name.length() <= LONGEST_NAME && !name.strip().equals(EVERYBODY);
    }

    /** @param project null for {@link Role#ADMINISTER} */
    void add(String name, Role role, @Nullable String project) {
        jdbi.useTransaction(handle -> handle.createUpdate(
                        "insert into people (name, project_id, role) values (:name, :project, :role)")
                .bind("name", name)
                .bind("project", project == null ? null : Projects.idOrNew(handle, project))
                .bind("role", role.word())
                .execute());
    }

    /** Takes away all that somebody may, and their sessions; gives how many roles that were. */
    int end(String name) {
        return jdbi.inTransaction(handle -> {
            handle.execute("delete from sessions where person = ?", name);
            return handle.execute("delete from people where name = ?", name);
        });
    }

    /** What the person may; in a project of which several things are said, the one that lets them do more. */
    Access of(String name) {
        List<Granted> granted = jdbi.withHandle(handle -> handle.createQuery(
                        "select p.name, w.role from people w left join projects p on p.id = w.project_id"
                                + " where w.name = :name or w.name = :everybody")
                .bind("name", name)
                .bind("everybody", EVERYBODY)
                .map((row, context) -> new Granted(row.getString(1), row.getString(2)))
                .list());
        Map<String, Role> roles = new HashMap<>();
        boolean administers = false;
        for (Granted one : granted) {
            Optional<Role> role = Role.ofWord(one.role());
            if (role.isEmpty()) continue; // of a later version
            if (role.get() == Role.ADMINISTER) administers = true;
            else if (one.project() != null)
                roles.merge(one.project(), role.get(), (a, b) -> a.compareTo(b) > 0 ? a : b);
        }
        return new Access(0, name, administers, roles);
    }
}
