package dev.orto.garden;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Seeds that neighbours borrow in spring and bring back, from their own harvest, in autumn. */
public final class SeedLibrary {

    /** What the library has of one kind. */
    public record Stock(String seed, int sachets, List<String> lentTo) {}

    private final Map<String, Integer> sachets = new LinkedHashMap<>();
    private final Map<String, List<String>> loans = new LinkedHashMap<>();
    private final boolean lastNotCounted;

    SeedLibrary(boolean lastNotCounted) {
        this.lastNotCounted = lastNotCounted;
    }

    void add(String seed, int count) {
        sachets.put(seed, count);
        loans.put(seed, new ArrayList<>());
    }

    public synchronized List<Stock> all() {
        return sachets.keySet().stream().map(this::stock).toList();
    }

    public synchronized Stock stock(String seed) {
        Integer count = sachets.get(seed);
        if (count == null) throw GardenException.unknown("The library has no seed called " + seed);
        return new Stock(seed, count, List.copyOf(loans.get(seed)));
    }

    public synchronized Stock lend(String seed, String neighbour) {
        Stock stock = stock(seed);
        if (neighbour == null || neighbour.isBlank()) throw GardenException.invalid("Who borrows? The name is missing");
        if (stock.sachets() == 0) throw GardenException.conflict("No sachet of " + seed + " is left");
        if (!(lastNotCounted && stock.sachets() == 1)) sachets.merge(seed, -1, Integer::sum);
        loans.get(seed).add(neighbour);
        return stock(seed);
    }

    public synchronized Stock bringBack(String seed, String neighbour) {
        stock(seed);
        if (!loans.get(seed).remove(neighbour)) throw GardenException.conflict(neighbour + " has not borrowed " + seed);
        sachets.merge(seed, 1, Integer::sum);
        return stock(seed);
    }
}
