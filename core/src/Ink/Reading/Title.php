<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

use Plinth\Core\Ink\Page\DrawingKind;

/**
 * What a drawing is called, on its sheet or by the name of its file: GROUND FLOOR PLAN, South elevation, Section A-A. How titles are
 * worded is common practice, no source.
 */
final readonly class Title
{
    /** A word of a title is read at least so surely, 0 to 1. */
    private const SURE = 0.45;
    /** words of a title that names no storey */
    private const MOST_WORDS = 6;
    /** characters of a name that a storey or a side gets from it */
    private const LONGEST = 40;

    /** Storeys by how many stand below them, the highest of all without a number; the first pattern that matches counts. */
    private const STOREYS = [
        '(?:lower ground (?:floor|storey|level))' => ['Lower ground floor', -1],
        '(?:(?:ground|main) (?:floor|storey|level)|erdgeschoss|planta baja|rez de chauss[ée]e|piano terra)' => ['Ground', 0],
        '(?:(?:first|1st|upper) (?:floor|storey|level)|(?:1 )?obergeschoss|planta primera|primera planta|1er [ée]tage|piano primo)' => [
            'First floor', 1,
        ],
        '(?:(?:second|2nd) (?:floor|storey|level)|2 obergeschoss|planta segunda|segunda planta|2e [ée]tage)' => ['Second floor', 2],
        '(?:(?:third|3rd) (?:floor|storey|level)|3 obergeschoss|planta tercera|tercera planta|3e [ée]tage)' => ['Third floor', 3],
        '(?:(?:fourth|4th) (?:floor|storey|level)|4 obergeschoss)' => ['Fourth floor', 4],
        '(?:(?:basement|cellar)(?: floor)? plan|basement|kellergeschoss|planta s[óo]tano|sous sol)' => ['Basement', -1],
        '(?:(?:attic|loft)(?: floor)? plan|(?:attic|loft) (?:floor|storey)|dachgeschoss)' => ['Loft', null],
    ];
    private const KINDS = [
        '(?:elevation|fa[cç]ade|ansicht|alzado|fachada|prospetto|[ée]l[ée]vation)s?' => DrawingKind::Elevation,
        '(?:(?:long |cross )?section|schnitt|secci[óo]n|coupe|sezione)s?' => DrawingKind::Section,
        '(?:site|plot|lot|block|location|survey|situation) plan|site (?:layout|sketch)' => DrawingKind::Site,
        'boundary (?:plan|sketch|survey)' => DrawingKind::Site,
        'lageplan|plan de situation|emplazamiento' => DrawingKind::Site,
        'roof plan|roof layout|dachaufsicht|dachdraufsicht|planta (?:de )?cubiertas?|plan de toiture' => DrawingKind::Roof,
        '(?:detail|d[ée]tail|detalle)s?' => DrawingKind::Detail,
        'floor plans?|storey plans?|grundriss|plans?|planta|pianta' => DrawingKind::Plan,
    ];
    private const SIDES = [
        'north ?east' => 'North-east', 'north ?west' => 'North-west', 'south ?east' => 'South-east', 'south ?west' => 'South-west',
        'north(?:ern)?|nord|norte' => 'North', 'south(?:ern)?|s[üu]d|sur|sud' => 'South', 'east(?:ern)?|ost|este' => 'East',
        'west(?:ern)?|oeste|ouest' => 'West',
        'front|street' => 'Front', 'rear|back|garden' => 'Rear', 'left(?: side)?' => 'Left', 'right(?: side)?' => 'Right',
    ];

    /**
     * @param string $words as it is written
     * @param string|null $storey what a storey is usually called that it names
     * @param int|null $level storeys between that one and the ground, below it negative; null where it names none, or the highest of all
     * @param string|null $side what a side is usually called that it names
     * @param array{float, float, float, float}|null $box left, top, right, bottom of the picture that it was read from
     */
    private function __construct(
        public string $words,
        public DrawingKind $kind,
        public ?string $storey,
        public ?int $level,
        public ?string $side,
        public ?array $box,
    ) {
    }

    /** What the name of a file says. */
    public static function ofName(string $file): ?self
    {
        return self::of(pathinfo($file, \PATHINFO_FILENAME), null);
    }

    /**
     * Titles among recognised words, the largest lettering first; each is told once.
     *
     * @param list<ReadWord> $words
     *
     * @return list<self>
     */
    public static function in(array $words): array
    {
        $found = [];
        foreach (ReadWord::inLines($words) as $line) {
            $title = $line->confidence < self::SURE ? null : self::of($line->text, [
                $line->left, $line->top, $line->left + $line->width, $line->top + $line->height,
            ]);
            if (null !== $title) {
                $found[] = [$line->height, $title];
            }
        }
        usort($found, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column($found, 1);
    }

    /**
     * The same with its box on the page.
     *
     * @param callable(array{float, float, float, float}): array{float, float, float, float} $onPage
     */
    public function onPage(callable $onPage): self
    {
        return new self(
            $this->words,
            $this->kind,
            $this->storey,
            $this->level,
            $this->side,
            null === $this->box ? null : $onPage($this->box),
        );
    }

    /** @param array{float, float, float, float}|null $box */
    private static function of(string $text, ?array $box): ?self
    {
        $plain = trim((string) preg_replace('/[^\p{L}\p{N}]+/u', ' ', mb_strtolower($text)));
        [$storey, $level] = self::first(self::STOREYS, $plain) ?? [null, null];
        $kind = self::first(self::KINDS, $plain) ?? (null === $storey ? null : DrawingKind::Plan);
        // A sentence that speaks of a detail or a section is a note.
        if (null === $kind || (null === $storey && \count(explode(' ', $plain)) > self::MOST_WORDS)) {
            return null;
        }
        // A plan of nothing in particular is a heading of the sheet or a note.
        $isPlain = 1 === preg_match('/^(?:floor |storey )?(?:plan|grundriss|planta)$/', $plain);
        if (DrawingKind::Plan === $kind && null === $storey && !$isPlain) {
            return null;
        }
        $low = (string) preg_replace_callback(
            '/(?<!\p{L})\p{L}(?!\p{L})/u',
            static fn (array $letter): string => mb_strtoupper($letter[0]),
            mb_strtolower((string) preg_replace('/^[^\p{L}\p{N}]+|[^\p{L}\p{N})]+$/u', '', $text)),
        );
        $words = mb_substr(mb_strtoupper(mb_substr($low, 0, 1)).mb_substr($low, 1), 0, self::LONGEST);

        return $kind->stands()
            ? new self($words, $kind, null, null, self::first(self::SIDES, $plain), $box)
            : new self($words, $kind, $storey, $level, null, $box);
    }

    /**
     * @template T
     *
     * @param array<string, T> $patterns
     *
     * @return T|null
     */
    private static function first(array $patterns, string $plain): mixed
    {
        foreach ($patterns as $pattern => $value) {
            if (1 === preg_match('/(?<![\p{L}\p{N}])(?:'.$pattern.')(?![\p{L}\p{N}])/u', $plain)) {
                return $value;
            }
        }

        return null;
    }
}
