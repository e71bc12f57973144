package dev.verbale.hub;

import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.Jdbi;

/** Whose runs there are. */
final class Projects {

    /** Of projects, runs and their parts: a part of an address, and of a path on any system. */
    private static final Pattern NAME = Pattern.compile("[A-Za-z0-9](?:[A-Za-z0-9._-]{0,98}[A-Za-z0-9_-])?");

    private final Jdbi jdbi;

    /** They never go. */
    private final Set<String> known = ConcurrentHashMap.newKeySet();

    Projects(Jdbi jdbi) {
        this.jdbi = jdbi;
    }

    static boolean isName(String name) {
        return NAME.matcher(name).matches();
    }

    static long idOrNew(Handle handle, String name) {
        handle.execute("insert into projects (name) values (?) on conflict do nothing", name);
        return handle.createQuery("select id from projects where name = :name")
                .bind("name", name)
                .mapTo(Long.class)
                .one();
    }

    boolean has(String name) {
        if (known.contains(name)) return true;
        boolean isThere = jdbi.withHandle(handle -> handle.createQuery("select 1 from projects where name = :name")
                .bind("name", name)
                .mapTo(Integer.class)
                .findOne()
                .isPresent());
        if (isThere) known.add(name);
        return isThere;
    }

    /** In the order of the alphabet. */
    List<String> all() {
        return jdbi.withHandle(handle -> handle.createQuery("select name from projects order by name")
                .mapTo(String.class)
                .list());
    }
}
