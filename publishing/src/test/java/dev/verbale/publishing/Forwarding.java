package dev.verbale.publishing;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;

/** A store that does something before each call. */
class Forwarding implements SiteStore {

    private final SiteStore store;

    Forwarding(SiteStore store) {
        this.store = store;
    }

    void call() throws IOException {}

    @Override
    public Stored read(String name) throws IOException {
        call();
        return store.read(name);
    }

    @Override
    public Map<String, String> list(String prefix) throws IOException {
        call();
        return store.list(prefix);
    }

    @Override
    public String bring(String name, Path file) throws IOException {
        call();
        return store.bring(name, file);
    }

    @Override
    public void put(String name, Path file) throws IOException {
        call();
        store.put(name, file);
    }

    @Override
    public void copy(String from, String to) throws IOException {
        call();
        store.copy(from, to);
    }

    @Override
    public String replace(String name, byte[] bytes, String version) throws IOException {
        call();
        return store.replace(name, bytes, version);
    }

    @Override
    public void delete(String name) throws IOException {
        call();
        store.delete(name);
    }

    @Override
    public String address(String name) {
        return store.address(name);
    }

    @Override
    public void close() {
        store.close();
    }
}
