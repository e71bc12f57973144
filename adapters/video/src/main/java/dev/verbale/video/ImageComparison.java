package dev.verbale.video;

import java.awt.image.BufferedImage;

/**
 * Two images, pixel by pixel. A pixel differs where one of its three colours is further off than allowed: fonts and edges
 * are never drawn quite alike.
 *
 * @param pixels of the larger image
 * @param differing of them, among them all that only one of the images has
 * @param difference the second image faded, with what differs in red
 */
record ImageComparison(long pixels, long differing, BufferedImage difference) {

    private static final int RED = 0xd0021b;

    /**
     * Compares.
     *
     * @param tolerance how far off a colour may be, from 0 to 255
     */
    public static ImageComparison of(BufferedImage expected, BufferedImage shown, int tolerance) {
        int width = Math.max(expected.getWidth(), shown.getWidth());
        int height = Math.max(expected.getHeight(), shown.getHeight());
        var difference = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        long differing = 0;
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                boolean same = isIn(expected, x, y)
                        && isIn(shown, x, y)
                        && isNear(expected.getRGB(x, y), shown.getRGB(x, y), tolerance);
                if (!same) differing++;
                difference.setRGB(x, y, same ? faded(shown.getRGB(x, y)) : RED);
            }
        }
        return new ImageComparison((long) width * height, differing, difference);
    }

    /** From 0 to 1. */
    public double share() {
        return pixels == 0 ? 0 : (double) differing / pixels;
    }

    private static boolean isIn(BufferedImage image, int x, int y) {
        return x < image.getWidth() && y < image.getHeight();
    }

    private static boolean isNear(int one, int other, int tolerance) {
        for (int shift = 0; shift <= 16; shift += 8)
            if (Math.abs((one >> shift & 0xff) - (other >> shift & 0xff)) > tolerance) return false;
        return true;
    }

    private static int faded(int colour) {
        int grey = ((colour >> 16 & 0xff) + (colour >> 8 & 0xff) + (colour & 0xff)) / 3;
        int light = 255 - (255 - grey) / 4;
        return light << 16 | light << 8 | light;
    }
}
