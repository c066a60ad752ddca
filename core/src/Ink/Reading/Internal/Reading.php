<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

/**
 * One way to read a strip of lettering as a figure.
 *
 * @internal
 */
final readonly class Reading
{
    /** mm to an inch, NIST SP 811 */
    private const INCH = 25.4;

    /** mm that it says, and of its last place */
    public float $mm;
    public float $stepMm;

    /** @param float $likely logarithm of how likely it is, beside the likeliest reading with no regard to what figures look like */
    public function __construct(public string $text, public FigureKind $kind, public float $likely)
    {
        $this->mm = match ($kind) {
            FigureKind::Millimetres, FigureKind::Thousands => (float) str_replace(',', '', $text),
            FigureKind::Metres, FigureKind::MetresToMillimetre => round(1000.0 * (float) $text, 1),
            FigureKind::FeetInches => self::feet($text),
        };
        $this->stepMm = match ($kind) {
            FigureKind::Metres => 10.0,
            FigureKind::FeetInches => self::INCH / (float) (explode('/', rtrim($text, '"'))[1] ?? 1),
            default => 1.0,
        };
    }

    /** As it is written: with a space before a fraction, and between thousands (ISO 80000-1). */
    public function written(): string
    {
        return match ($this->kind) {
            FigureKind::Millimetres => number_format($this->mm, 0, '.', ' '),
            FigureKind::FeetInches => self::spaced(self::parts($this->text)),
            default => $this->text,
        };
    }

    private static function feet(string $text): float
    {
        [$feet, $inches, $numerator, $denominator] = self::parts($text);

        return (12.0 * $feet + $inches + $numerator / max(1, $denominator)) * self::INCH;
    }

    /**
     * Figures are read without their gaps: whole inches are eleven at most, and what is left before a stroke is the numerator.
     *
     * @return array{int, int, int, int} feet, inches, numerator, denominator
     */
    private static function parts(string $text): array
    {
        [$feet, $inches] = [...explode("'-", rtrim($text, '"')), ''];
        [$before, $below] = [...explode('/', $inches), ''];
        if ('' === $below) {
            return [(int) $feet, (int) $before, 0, 0];
        }
        $digits = (int) substr($before, 0, -1) > 11 ? 2 : 1;

        return [(int) $feet, (int) substr($before, 0, -$digits), (int) substr($before, -$digits), (int) $below];
    }

    /** @param array{int, int, int, int} $parts */
    private static function spaced(array $parts): string
    {
        return \sprintf("%d'-%d", $parts[0], $parts[1]).($parts[3] > 0 ? \sprintf(' %d/%d', $parts[2], $parts[3]) : '').'"';
    }
}
