package dev.verbale.lake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;

/** A storage in memory that may be away from some call on. */
final class HeldStore implements LakeStore {

    private record Held(byte[] bytes, long version) {}

    private final Map<String, Held> files = new TreeMap<>();
    private long versions;
    private int left = Integer.MAX_VALUE;
    int calls;

    synchronized void awayAfter(int some) {
        left = some;
        calls = 0;
    }

    synchronized boolean has(String name) {
        return files.containsKey(name);
    }

    synchronized Map<String, String> all() {
        Map<String, String> all = new TreeMap<>();
        files.forEach((name, one) -> all.put(name, "v" + one.version));
        return all;
    }

    synchronized void lose(String name) {
        files.remove(name);
    }

    /** Something that happens first. */
    interface Hook {
        void before(String call) throws Exception;
    }

    volatile Hook hook = call -> {};

    private void call(String what) throws IOException {
        try {
            hook.before(what);
        } catch (Exception failed) {
            throw new IOException(failed);
        }
        synchronized (this) {
            calls++;
            if (left-- <= 0) throw new IOException("the storage is away");
        }
    }

    @Override
    public Map<String, String> list(String prefix) throws IOException {
        call("list");
        Map<String, String> found = all();
        found.keySet().removeIf(name -> !name.startsWith(prefix));
        return found;
    }

    @Override
    public String bring(String name, Path file) throws IOException {
        call("bring");
        Held one;
        synchronized (this) {
            one = files.get(name);
        }
        if (one == null) return null;
        Files.write(file, one.bytes);
        return "v" + one.version;
    }

    @Override
    public void put(String name, Path file) throws IOException {
        call("put");
        write(name, Files.readAllBytes(file));
    }

    private synchronized String write(String name, byte[] bytes) {
        files.put(name, new Held(bytes, ++versions));
        return "v" + versions;
    }

    @Override
    public String replace(String name, byte[] bytes, String version) throws IOException {
        call("replace");
        synchronized (this) {
            Held now = files.get(name);
            String there = now == null ? null : "v" + now.version;
            return java.util.Objects.equals(there, version) ? write(name, bytes) : null;
        }
    }

    @Override
    public void delete(String name) throws IOException {
        call("delete");
        lose(name);
    }

    @Override
    public String address(String name) {
        return "s3://orto/" + name;
    }
}
