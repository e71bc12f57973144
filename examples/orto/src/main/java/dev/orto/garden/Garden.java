package dev.orto.garden;

import java.util.List;
import java.util.Set;

/** The communal garden as it is on an ordinary day in May. Everybody in it is made up. */
public final class Garden {

    public static final List<String> NEIGHBOURS = List.of("Ada", "Bruno", "Chiara", "Dario", "Elsa");

    private final List<Plot> plots;
    private final Rota rota;
    private final SeedLibrary seeds;
    private final Compost compost;
    private final Shed shed;
    private final Harvest harvest;

    public Garden(Set<Fault> faults) {
        plots = List.of(
                new Plot(1, "Ada", "Runner beans", 12.5),
                new Plot(2, "Bruno", "Courgettes", 9),
                new Plot(3, "Chiara", "Tomatoes", 14),
                new Plot(5, "Dario", "Potatoes", 20),
                new Plot(7, "Elsa", "Strawberries", 7.5),
                new Plot(12, "Ada", "Herbs", 4));
        rota = new Rota(NEIGHBOURS, faults.contains(Fault.ROTA_SWAP_HALF_DONE));
        seeds = new SeedLibrary(faults.contains(Fault.LAST_SACHET_NOT_COUNTED));
        seeds.add("Basil", 4);
        seeds.add("Borage", 2);
        seeds.add("Kale", 1);
        seeds.add("Marigold", 0);
        compost = new Compost(faults.contains(Fault.COMPOST_HISTORY_SLOW));
        double[] celsius = {18, 24, 37, 49, 56, 61, 63, 58, 52, 47, 41, 38};
        for (int day = 1; day <= celsius.length; day++) compost.add(new Compost.Reading(day, celsius[day - 1]));
        shed = new Shed(faults.contains(Fault.SHED_KEY_STAYS_OUT));
        harvest = new Harvest(faults);
    }

    public List<Plot> plots() {
        return plots;
    }

    public Plot plot(int number) {
        return plots.stream()
                .filter(plot -> plot.number() == number)
                .findFirst()
                .orElseThrow(() -> GardenException.unknown("There is no plot " + number));
    }

    public Rota rota() {
        return rota;
    }

    public SeedLibrary seeds() {
        return seeds;
    }

    public Compost compost() {
        return compost;
    }

    public Harvest harvest() {
        return harvest;
    }

    public Shed shed() {
        return shed;
    }
}
