package rivo.server.fleet;

import java.util.List;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.server.audience.Accounts;

/** Who is meant by the accounts that a device says are signed in: one of its own people where they have it, else anybody. */
record SignedInPeople(Estate estate, Device device, Accounts accounts) {

    /** The ids of those who may be meant. */
    List<String> named(String account) {
        List<String> all = accounts.find(estate, account);
        List<String> own = all.stream().filter(device.people()::contains).toList();
        return own.isEmpty() ? all : own;
    }

    /** The ids of these, each of whom is one person. */
    List<String> ids(List<String> signedIn) {
        return signedIn.stream().flatMap(account -> named(account).stream()).distinct().toList();
    }
}
