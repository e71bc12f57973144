package dev.orto.garden;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.atomic.AtomicInteger;

/** What was harvested, as the scale beside the gate weighs it. */
public final class Harvest {

    /** One basket on the scale. */
    public record Weighing(String crop, String neighbour, double kilograms) {}

    private static final Map<Integer, Integer> DAYS_OF_RAIN = Map.of(2023, 92, 2024, 0, 2025, 71);

    private final List<Weighing> weighings = new CopyOnWriteArrayList<>();
    private final AtomicInteger asked = new AtomicInteger();
    private final Set<Fault> faults;

    Harvest(Set<Fault> faults) {
        this.faults = faults;
        for (Weighing one : List.of(
                new Weighing("Tomatoes", "Chiara", 7.9),
                new Weighing("Tomatoes", "Chiara", 4.5),
                new Weighing("Strawberries", "Elsa", 3.8),
                new Weighing("Strawberries", "Elsa", 2.5),
                new Weighing("Courgettes", "Bruno", 9),
                new Weighing("Herbs", "Ada", 1.1),
                new Weighing("Potatoes", "Dario", 31))) weighings.add(one);
    }

    public void add(Weighing weighing) {
        if (weighing.kilograms() <= 0) throw GardenException.invalid("A basket weighs more than nothing");
        weighings.add(weighing);
    }

    /** In kilograms. */
    public double total(String crop) {
        double total = weighings.stream()
                .filter(one -> one.crop().equals(crop))
                .mapToDouble(Weighing::kilograms)
                .sum();
        if (total == 0) throw GardenException.unknown("Nobody harvested " + crop);
        boolean cut = faults.contains(Fault.HARVEST_TOTAL_CUT) && crop.equals("Strawberries");
        return cut ? Math.floor(total) : Math.round(total * 10) / 10.0;
    }

    /** Kilograms by crop, of all years the same in this made-up garden, and how many days of rain there were for each. */
    public Map<String, Object> year(int year) {
        Integer rain = DAYS_OF_RAIN.get(year);
        if (rain == null) throw GardenException.unknown("There are no weighings of " + year);
        double all = weighings.stream().mapToDouble(Weighing::kilograms).sum();
        Map<String, Object> answer = new LinkedHashMap<>();
        answer.put("year", year);
        answer.put("daysOfRain", rain);
        if (rain == 0 && faults.contains(Fault.HARVEST_OF_DRY_YEAR)) throw new ArithmeticException("/ by zero");
        answer.put("kilogramsADay", rain == 0 ? null : Math.round(all / rain * 100) / 100.0);
        return answer;
    }

    /** The scale sleeps to save its battery, and needs to be asked twice. */
    public boolean scaleIsAwake() {
        return asked.getAndIncrement() > 0;
    }
}
