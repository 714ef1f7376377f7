package rivo.server.live;

/** What can change. */
public final class Topics {

    /** OUs, people, titles or assignments. */
    public static final String ESTATE = "estate";
    /** How any device is doing. */
    public static final String FLEET = "fleet";
    /** Whether the directory can be followed. */
    public static final String DIRECTORY = "directory";

    private Topics() {
    }

    public static String device(String id) {
        return "device:" + id;
    }

    public static String draft(String who) {
        return "draft:" + who;
    }
}
