<?php

declare(strict_types=1);

namespace Plinth\Core\Units;

use Plinth\Core\Units\Exception\UnreadableBearing;

/**
 * A direction clockwise from north: as an azimuth `63.25`, `126°55'17"`, or by quadrant `N 36°15'20" E`, `S 64°57'40" W`.
 */
final readonly class Bearing
{
    private const NUMBER = '(\d{1,3}(?:[.,]\d+)?)';

    /**
     * @param float $degrees in [0, 360)
     * @param float $stepDegrees rounding step that the text shows
     */
    private function __construct(public float $degrees, public float $stepDegrees)
    {
    }

    /** @throws UnreadableBearing when the text is no bearing */
    public static function parse(string $text): self
    {
        $plain = mb_strtoupper(
            trim(strtr(mb_scrub($text), ['′' => "'", '’' => "'", '″' => '"', '”' => '"', "''" => '"', 'º' => '°', ',' => '.', '−' => '-'])),
        );
        // As it is keyed where no ° is at hand: S 82 41 50 E, 126-55-17.
        $keyed = '/^([NS]?)\s*(\d{1,3})[\s:-]+([0-5]?\d)[\s:-]+([0-5]?\d(?:\.\d+)?)\s*([EW]?)$/u';
        $plain = (string) preg_replace($keyed, "$1$2°$3'$4\"$5", $plain);
        // Minutes stand apart from the degrees, and whole from the seconds: 12345' would be 123°45' as well as 12°345'.
        $angle = self::NUMBER.'(?:\s*(?:°|DEG|D)\s*|\s+|(?![\d.]))(?:([0-5]?\d(?:\.\d+)?)\s*\'\s*)?(?:([0-5]?\d(?:\.\d+)?)\s*"\s*)?';
        if (1 === preg_match('/^([NS])\s*'.$angle.'\s*([EW])$/u', $plain, $m)) {
            [$degrees, $step] = self::angle($m[2], $m[3], $m[4]);
            if ($degrees > 90.0) {
                throw UnreadableBearing::beyondItsQuadrant($text);
            }
            $azimuth = match ($m[1].$m[5]) {
                'NE' => $degrees,
                'SE' => 180.0 - $degrees,
                'SW' => 180.0 + $degrees,
                default => 360.0 - $degrees,
            };

            return new self(fmod($azimuth, 360.0), $step);
        }
        if (1 === preg_match('/^'.$angle.'$/u', $plain, $m)) {
            [$degrees, $step] = self::angle($m[1], $m[2] ?? '', $m[3] ?? '');

            return $degrees <= 360.0 ? new self(fmod($degrees, 360.0), $step) : throw UnreadableBearing::beyondTheCircle($text);
        }
        throw UnreadableBearing::unreadable($text);
    }

    /** The bearing of a way, to the second. */
    public static function along(float $east, float $north): self
    {
        return new self(fmod(round((rad2deg(atan2($east, $north)) + 360.0) * 3600.0) / 3600.0, 360.0), 1.0 / 3600.0);
    }

    /** @param float $degrees clockwise */
    public function turned(float $degrees): self
    {
        return new self(fmod(fmod($this->degrees + $degrees, 360.0) + 360.0, 360.0), $this->stepDegrees);
    }

    /** In degrees, minutes and seconds from north, clockwise. */
    public function written(): string
    {
        $seconds = (int) round($this->degrees * 3600.0);

        return \sprintf("%d°%02d'%02d\"", intdiv($seconds, 3600) % 360, intdiv($seconds, 60) % 60, $seconds % 60);
    }

    public function radians(): float
    {
        return deg2rad($this->degrees);
    }

    /** @return array{float, float} degrees, and the step of the smallest part that was written */
    private static function angle(string $degrees, string $minutes, string $seconds): array
    {
        $value = (float) $degrees + (float) $minutes / 60.0 + (float) $seconds / 3600.0;
        [$last, $size] = '' !== $seconds ? [$seconds, 3600.0] : ('' !== $minutes ? [$minutes, 60.0] : [$degrees, 1.0]);
        $point = strpos($last, '.');

        return [$value, 10.0 ** -(false === $point ? 0 : \strlen($last) - $point - 1) / $size];
    }
}
