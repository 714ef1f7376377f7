package rivo.directory.demo;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;

/** Invented names of people, in the order that the random source gives. Used by one thread. */
final class PersonNames {

    private static final List<String> GIVEN = List.of("Adela", "Anselm", "Bettine", "Bram", "Calla", "Corvin",
            "Delphie", "Edrik", "Elowen", "Fenna", "Florin", "Gisela", "Hadrian", "Idony", "Imke", "Jarek", "Jorun",
            "Kestrel", "Lorcan", "Lunetta", "Maren", "Mirko", "Nadir", "Nerys", "Odile", "Osric", "Perrin", "Pia",
            "Quill", "Rowena", "Rurik", "Sabela", "Sorrel", "Tamsin", "Teodor", "Ulla", "Vidar", "Wenna", "Ysolde",
            "Zeno");
    private static final List<String> FAMILY_START = List.of("Alder", "Ash", "Black", "Brook", "Cold", "Crane",
            "Dun", "Elm", "Fair", "Fen", "Glen", "Hart", "Hollow", "Iron", "Kell", "Lang", "Lin", "Marsh", "Mill",
            "Nether", "Oak", "Over", "Pend", "Quarry", "Reed", "Rush", "Sedge", "Stone", "Thorn", "Under", "Wain",
            "Wether");
    private static final List<String> FAMILY_END = List.of("bourne", "by", "combe", "croft", "dale", "field", "ford",
            "gate", "ham", "hurst", "ley", "mere", "more", "shaw", "stead", "ton", "wick", "worth");

    record Name(String given, String family, String account) {
    }

    private final Random random;
    private final Map<String, Integer> used = new HashMap<>();

    /** @param taken accounts that nobody else gets */
    PersonNames(Random random, List<String> taken) {
        this.random = random;
        taken.forEach(account -> used.put(account, 1));
    }

    Name next() {
        String given = GIVEN.get(random.nextInt(GIVEN.size()));
        String family = FAMILY_START.get(random.nextInt(FAMILY_START.size()))
                + FAMILY_END.get(random.nextInt(FAMILY_END.size()));
        String account = (given + "." + family).toLowerCase(Locale.ROOT);
        int times = used.merge(account, 1, Integer::sum);
        return new Name(given, family, times == 1 ? account : account + times);
    }
}
