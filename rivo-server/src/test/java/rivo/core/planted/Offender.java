package rivo.core.planted;

import rivo.directory.DirectoryPicture;

/** A planted violation: something in the core that knows of the directory. It proves that the border test sees it. */
final class Offender {

    DirectoryPicture picture(DirectoryPicture picture) {
        return picture;
    }
}
