<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting;

/**
 * Focal length of the camera that took a picture, in halves of the picture's diagonal: it says by how much what recedes is foreshortened as
 * well.
 */
final readonly class Focal
{
    /** Of telephones (1.2) to pictures cut out of others (6): common practice, no source. */
    private const USUAL = 2.8;
    /** part of the foreshortening by which other lenses are off it; by trial (bench untested) */
    private const USUAL_OFF = 1.0;
    /** half the diagonal of the frame of 36 by 24 mm that lenses are told by (Exif, FocalLengthIn35mmFilm; from memory) */
    private const HALF_FRAME_MM = 21.633;
    /** What a camera says of its lens is rounded to a millimetre and its pictures are cut a little: common practice, no source. */
    private const TOLD_OFF = 0.06;

    /**
     * @param float $ratio over half the picture's diagonal
     * @param float $off part of the foreshortening that it may be off by, standard deviation
     */
    private function __construct(public float $ratio, public float $off)
    {
    }

    /** Nothing is known of the camera. */
    public static function usual(): self
    {
        return new self(self::USUAL, self::USUAL_OFF);
    }

    /**
     * As a camera says of its own lens.
     *
     * @param float $mm as on a frame of 36 by 24 mm
     */
    public static function ofFrame(float $mm): self
    {
        return self::measured($mm / self::HALF_FRAME_MM, self::TOLD_OFF);
    }

    /** @param float $part standard deviation of the ratio, as a part of it */
    public static function measured(float $ratio, float $part): self
    {
        // What is foreshortened grows with its square.
        return new self($ratio, min(self::USUAL_OFF, 2.0 * $part));
    }
}
