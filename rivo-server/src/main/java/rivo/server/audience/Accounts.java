package rivo.server.audience;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import rivo.core.estate.Estate;
import rivo.core.estate.User;
import rivo.core.estate.Users;

/** The directory's people by their account names, without regard to case. Safe for any number of threads. */
@Component
public class Accounts {

    private record Index(Users users, Map<String, List<String>> ids) {
    }

    private volatile @Nullable Index latest;

    /** The ids of those who have this account: one, none, or, where the directory gives it twice, several. Costs a pass after people changed. */
    public List<String> find(Estate estate, String account) {
        Index index = latest;
        if (index == null || index.users() != estate.users()) {
            index = new Index(estate.users(), byAccount(estate.users()));
            latest = index;
        }
        return index.ids().getOrDefault(folded(account), List.of());
    }

    private static Map<String, List<String>> byAccount(Users users) {
        Map<String, List<String>> ids = new HashMap<>();
        for (User user : users.all()) {
            if (!user.name().isEmpty()) {
                ids.merge(folded(user.name()), List.of(user.id()), Accounts::both);
            }
        }
        return ids;
    }

    private static List<String> both(List<String> one, List<String> other) {
        List<String> both = new ArrayList<>(one);
        both.addAll(other);
        return both;
    }

    private static String folded(String account) {
        return account.toLowerCase(Locale.ROOT);
    }
}
