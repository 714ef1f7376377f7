package rivo.server.live;

import java.util.Collection;
import java.util.List;
import java.util.stream.Stream;

/** What can change. */
public final class Topics {

    /** OUs, people or devices, or so much else that nothing is left out. */
    public static final String ESTATE = "estate";
    /** What devices have on them and say of themselves, on which outcomes depend. */
    public static final String FACTS = "facts";
    /** Which titles there are, and what a list says of them. */
    public static final String TITLES = "titles";
    /** The kits, and where they are assigned. */
    public static final String KITS = "kits";
    /** The mirrors, what they hold, and what was fetched from them. */
    public static final String MIRRORS = "mirrors";
    /** The maintenance windows. */
    public static final String WINDOWS = "windows";
    /** What people have asked for and taken from their shelves. */
    public static final String REQUESTS = "requests";
    /** Whether the directory can be followed. */
    public static final String DIRECTORY = "directory";
    /** More devices than are named. */
    static final String MANY_DEVICES = "devices";

    private static final String DEVICE = "device:";
    private static final String DRAFT = "draft:";

    private Topics() {
    }

    /** A title: what is said of it, and what it comes to. */
    public static String title(String id) {
        return "title:" + id;
    }

    /** So many titles, and the list of them. */
    public static List<String> titles(Collection<String> ids) {
        return Stream.concat(Stream.of(TITLES), ids.stream().map(Topics::title)).toList();
    }

    /** What a device is doing. */
    public static String device(String id) {
        return DEVICE + id;
    }

    /** Somebody's draft. */
    public static String draft(String who) {
        return DRAFT + who;
    }

    static boolean isDevice(String topic) {
        return topic.startsWith(DEVICE);
    }

    static String deviceOf(String topic) {
        return topic.substring(DEVICE.length());
    }

    static boolean isDraft(String topic) {
        return topic.startsWith(DRAFT);
    }
}
