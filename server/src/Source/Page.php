<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\Beforehand;
use Plinth\Core\Fitting\Focal;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Leaning;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Source\Reading\FoundPage;
use Plinth\Server\Source\Reading\PageHint;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One page of a source, upright by its own tags. What is made of it by a job belongs to no change. */
#[Kind('page', isWritten: false, isRemoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'source'])]
class Page extends ProjectRow
{
    public const FOLLOWS = ['hasPreview', 'tileSuffix', 'made', 'registration', 'pictures'];

    #[Refers(Source::class, then: WhenGone::GoesAlong, alone: true)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $source;

    #[ORM\Column]
    private int $number = 1;

    #[ORM\Column]
    private int $width = 0;

    #[ORM\Column]
    private int $height = 0;

    /** pixels per inch by the file's own tag */
    #[ORM\Column(nullable: true)]
    private ?float $resolution = null;

    /** what the user should know of it at once */
    #[ORM\Column(length: 300)]
    private string $remark = '';

    /** what the file says about its size and lie; mm of the building */
    #[ORM\Column(nullable: true)]
    private ?float $hintMmPerPixel = null;

    #[ORM\Column(nullable: true)]
    private ?float $hintTurnDegrees = null;

    #[ORM\Column(nullable: true)]
    private ?float $hintX = null;

    #[ORM\Column(nullable: true)]
    private ?float $hintY = null;

    #[ORM\Column(length: 40)]
    private string $hintFrom = '';

    /** the older page that this one is to take the place of */
    #[Refers(self::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $replaces = null;

    #[ORM\Column]
    private bool $hasPreview = false;

    /** suffix of the tiles once written */
    #[ORM\Column(length: 8)]
    private string $tileSuffix = '';

    /** JSON of what the import found: proposed cuts, how to tell ink from paper, exact lines, bytes used; empty before */
    #[ORM\Column(type: 'text', length: 16_000_000)]
    private string $made = '';

    /** version of its pictures in the store of files; empty before there are any */
    #[ORM\Column(length: 32, options: ['default' => ''])]
    private string $pictures = '';

    /** JSON of how it lies on the page it replaces; empty where it replaces none */
    #[ORM\Column(type: 'text')]
    private string $registration = '';

    public function values(): array
    {
        return [
            'source' => $this->source->toRfc4122(), 'number' => $this->number, 'width' => $this->width, 'height' => $this->height, 'resolution' => $this->resolution, 'remark' => $this->remark,
            'hintMmPerPixel' => $this->hintMmPerPixel, 'hintTurnDegrees' => $this->hintTurnDegrees, 'hintX' => $this->hintX, 'hintY' => $this->hintY, 'hintFrom' => $this->hintFrom,
            'replaces' => $this->replaces?->toRfc4122(),
        ];
    }

    public function take(RowValues $values): void
    {
        $this->source = $values->id('source');
        $this->number = $values->count('number');
        $this->width = $values->count('width');
        $this->height = $values->count('height');
        $this->resolution = $values->optionalNumber('resolution');
        $this->remark = $values->text('remark', 300);
        $this->hintMmPerPixel = $values->optionalPositive('hintMmPerPixel');
        $this->hintTurnDegrees = $values->optionalNumber('hintTurnDegrees');
        $this->hintX = $values->optionalNumber('hintX');
        $this->hintY = $values->optionalNumber('hintY');
        $this->hintFrom = $values->text('hintFrom', 40);
        $this->replaces = $values->optionalId('replaces');
    }

    /** @return array<string, mixed> */
    public function made(): array
    {
        return [
            'page' => $this->id->toRfc4122(),
            'hasPreview' => $this->hasPreview,
            'tileSuffix' => $this->tileSuffix,
            'pictures' => $this->pictures,
            'made' => self::decoded($this->made),
            'registration' => $this->registration(),
        ];
    }

    /** @return array<string, scalar|null> values of a page found in a file */
    public static function valuesOf(Uuid $source, int $number, FoundPage $found, ?Uuid $replaces = null): array
    {
        return [
            'source' => $source->toRfc4122(), 'number' => $number, 'width' => $found->width, 'height' => $found->height, 'resolution' => $found->resolution, 'remark' => mb_substr($found->remark, 0, 300),
            'hintMmPerPixel' => $found->hint?->mmPerPixel, 'hintTurnDegrees' => $found->hint?->turnDegrees, 'hintX' => $found->hint?->corner?->x, 'hintY' => $found->hint?->corner?->y, 'hintFrom' => $found->hint->from ?? '',
            'replaces' => $replaces?->toRfc4122(),
        ];
    }

    public function hint(): ?PageHint
    {
        return null === $this->hintMmPerPixel ? null : new PageHint(
            $this->hintMmPerPixel,
            $this->hintTurnDegrees ?? 0.0,
            null === $this->hintX || null === $this->hintY ? null : new Point($this->hintX, $this->hintY),
            $this->hintFrom,
        );
    }

    public function replaces(): ?Uuid
    {
        return $this->replaces;
    }

    /** @return array<mixed>|null */
    public function registration(): ?array
    {
        return self::decoded($this->registration);
    }

    /** @return array<mixed>|null */
    private static function decoded(string $json): ?array
    {
        $value = '' === $json ? null : json_decode($json, true);

        return \is_array($value) ? $value : null;
    }

    public function isLightOnDark(): bool
    {
        return true === (self::decoded($this->made)['lightOnDark'] ?? null);
    }

    /** Whether it is a photograph of a building, not of a drawing. */
    public function isScene(): bool
    {
        return true === (self::decoded($this->made)['isScene'] ?? null);
    }

    /** What is known of its proportions before anything is stated: lines drawn by a program are as they were drawn; else the ink tells. */
    public function beforehand(): Beforehand
    {
        $made = self::decoded($this->made);
        if (($made['lines'] ?? 0) > 0) {
            return Beforehand::exact();
        }
        $leaning = $this->leaning();
        $picture = Beforehand::picture($this->focal());

        return null === $leaning ? $picture : $picture->leaning(...$leaning->told());
    }

    /** What its camera says of its lens, or its sheet's proportions. */
    private function focal(): ?Focal
    {
        $made = self::decoded($this->made);
        $skew = $made['skew'] ?? null;
        $sheet = \is_array($skew) ? $skew['focal'] ?? null : null;

        return match (true) {
            is_numeric($made['lensMm'] ?? null) => Focal::ofFrame((float) $made['lensMm']),
            \is_array($sheet) && is_numeric($sheet['ratio']) && is_numeric($sheet['part']) => Focal::measured((float) $sheet['ratio'], (float) $sheet['part']),
            default => null,
        };
    }

    /** Whether it has been found out which way up it is read, or that its writing does not say. */
    public function isWayUpKnown(): bool
    {
        return \array_key_exists('wayUp', self::decoded($this->made) ?? []);
    }

    /** How its lines converge; null where that has not been looked for, or too few show. */
    public function leaning(): ?Leaning
    {
        $skew = self::decoded($this->made)['skew'] ?? null;
        $leans = [];
        foreach (\is_array($skew) && \is_array($skew['leans'] ?? null) ? $skew['leans'] : [] as $name => $value) {
            $leans[(string) $name] = is_numeric($value) ? (float) $value : 0.0;
        }

        return Leaning::from($leans);
    }

    public function number(): int
    {
        return $this->number;
    }

    public function source(): Uuid
    {
        return $this->source;
    }

    public function width(): int
    {
        return $this->width;
    }

    public function height(): int
    {
        return $this->height;
    }

    public function resolution(): ?float
    {
        return $this->resolution;
    }

    public function tileSuffix(): string
    {
        return $this->tileSuffix;
    }

    public function pictures(): string
    {
        return $this->pictures;
    }

    public function hasPreview(): bool
    {
        return $this->hasPreview;
    }
}
