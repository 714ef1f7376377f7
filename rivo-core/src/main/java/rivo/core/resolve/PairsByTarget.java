package rivo.core.resolve;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import rivo.core.audience.TargetRow;
import rivo.core.estate.Device;

/**
 * Who speaks for the titles of each family, all in one row: family by family, title by title, and down each ladder. For
 * each target the places of its pairs in that row are kept, so that a device gets a bit for each pair that may hold there,
 * and asks nobody else. Families go by their places. Immutable.
 */
final class PairsByTarget {

    private final Relations relations;
    private final RankedPairs[][] rankedPairs;
    /** For each title of each family where its ranked pairs begin in the row. */
    private final int[][] starts;
    /** For each place in the row its family, and the title of that. */
    private final int[] familyOf;
    private final int[] titleOf;
    /** For each target, by its number, the places of its pairs. */
    private final int[][] placesOf;

    /** Makes all pairs of all titles. */
    PairsByTarget(Resolver resolver) {
        this.relations = resolver.relations();
        List<Family> families = relations.inOrder();
        this.rankedPairs = new RankedPairs[families.size()][];
        this.starts = new int[families.size()][];
        List<List<Integer>> places = new ArrayList<>();
        List<Integer> familyAt = new ArrayList<>();
        List<Integer> titleAt = new ArrayList<>();
        for (int f = 0; f < rankedPairs.length; f++) {
            rankedPairs[f] = families.get(f).titles().stream().map(resolver::rankedPairs).toArray(RankedPairs[]::new);
            starts[f] = new int[rankedPairs[f].length];
            for (int t = 0; t < starts[f].length; t++) {
                starts[f][t] = familyAt.size();
                for (RankedPair ranked : rankedPairs[f][t].live()) {
                    while (places.size() <= ranked.pair().number()) {
                        places.add(new ArrayList<>(2));
                    }
                    places.get(ranked.pair().number()).add(familyAt.size());
                    familyAt.add(f);
                    titleAt.add(t);
                }
            }
        }
        this.familyOf = familyAt.stream().mapToInt(f -> f).toArray();
        this.titleOf = titleAt.stream().mapToInt(t -> t).toArray();
        this.placesOf = places.stream().map(of -> of.stream().mapToInt(p -> p).toArray()).toArray(int[][]::new);
    }

    /** Those of a title of a family. */
    RankedPairs rankedPairs(int family, int title) {
        return rankedPairs[family][title];
    }

    /** Where those of a title of a family begin in the row. */
    int start(int family, int title) {
        return starts[family][title];
    }

    /** The first title of a family, from one on, of which some of these pairs may hold; as many as it has, where there is none. */
    int next(BitSet mayHold, int family, int title) {
        int titles = starts[family].length;
        int place = title == titles ? -1 : mayHold.nextSetBit(starts[family][title]);
        return place < 0 || familyOf[place] != family ? titles : titleOf[place];
    }

    /** The pairs that may hold at a device, by their places in the row. */
    BitSet mayHold(TargetRow row) {
        BitSet places = new BitSet(familyOf.length);
        row.forEach(number -> {
            if (number < placesOf.length) {
                for (int place : placesOf[number]) {
                    places.set(place);
                }
            }
        });
        return places;
    }

    /** The families of pairs that may hold. */
    BitSet families(BitSet mayHold) {
        BitSet families = new BitSet(rankedPairs.length);
        for (int place = mayHold.nextSetBit(0); place >= 0; place = mayHold.nextSetBit(place + 1)) {
            families.set(familyOf[place]);
        }
        return families;
    }

    /** The families of the titles that are on a device. */
    BitSet present(Device device) {
        BitSet families = new BitSet(rankedPairs.length);
        device.present().forEach(present -> families.set(relations.place(present.title())));
        return families;
    }
}
