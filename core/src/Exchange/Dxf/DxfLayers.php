<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

/** How layers are called. */
enum DxfLayers: string
{
    case Plain = 'plain';
    /** ISO 13567-2: agent, element and presentation in two, six and two characters */
    case Iso13567 = 'iso13567';

    /** The element that each shows, by a code of our own, and how (ISO 13567-2, 7.3: E elements, T text, D dimensions, H hatch). */
    private const ELEMENTS = [
        'walls' => ['WALL--', 'E-'],
        'wall-hatch' => ['WALL--', 'H-'],
        'centre-lines' => ['WALLCL', 'E-'],
        'railings' => ['RAIL--', 'E-'],
        'dividers' => ['DIVID-', 'E-'],
        'openings' => ['OPENG-', 'E-'],
        'opening-numbers' => ['OPENG-', 'T-'],
        'rooms' => ['ROOM--', 'E-'],
        'room-names' => ['ROOM--', 'T-'],
        'stairs' => ['STAIR-', 'E-'],
        'stairs-beyond' => ['STAIRB', 'E-'],
        'axes' => ['AXIS--', 'E-'],
        'columns' => ['COLUMN', 'E-'],
        'outlines' => ['OUTLIN', 'E-'],
        'objects' => ['OBJECT', 'E-'],
        'boundary' => ['SITE--', 'E-'],
        'drawn' => ['DRAWN-', 'E-'],
        'drawn-hatch' => ['DRAWN-', 'H-'],
        'dimensions' => ['MEASUR', 'D-'],
        'notes' => ['NOTE--', 'T-'],
        'levels' => ['LEVEL-', 'T-'],
        'remarks' => ['REMARK', 'T-'],
        'ways-out' => ['ESCAPE', 'E-'],
        'ways-out-lengths' => ['ESCAPE', 'T-'],
        'cut' => ['CUT---', 'E-'],
        'seen' => ['SEEN--', 'E-'],
        'hidden' => ['HIDDEN', 'E-'],
    ];

    public function named(string $layer): string
    {
        [$element, $presentation] = self::ELEMENTS[$layer] ?? throw new \LogicException("No layer $layer.");

        return self::Plain === $this ? $layer : "A-$element$presentation";
    }

    /**
     * The layer of a class of fire resistance: each can be switched off by itself.
     *
     * @param int $number of it in the key, from 1
     */
    public function ofClass(int $number, string $name): string
    {
        return self::Plain === $this
            ? 'enclosures-'.trim((string) preg_replace('/[<>\/\\\\":;?*|=`,\x00-\x1f]+/', ' ', $name))
            : \sprintf('A-ENCL%02dE-', $number);
    }
}
