package rivo.devices.fleet;

/** What one simulated device knows of itself, and where it is kept over a restart. Of one thread at a time. */
final class KeptState {

    private final FleetStore store;
    private DeviceState state;

    KeptState(DeviceState state, FleetStore store) {
        this.state = state;
        this.store = store;
    }

    DeviceState state() {
        return state;
    }

    void keep(DeviceState newer) {
        becomes(newer);
        store.keep(newer);
    }

    /** What is kept before long, with whatever is kept next. */
    void becomes(DeviceState newer) {
        state = newer;
    }
}
