<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Sheets\Model\SheetView as CoreView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\Model\ViewMark as CoreMark;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Project\Side;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** One drawing, table, key or picture on a print sheet. It goes with what it shows. */
#[Kind('sheetView')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'sheet'])]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'side'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class SheetView extends ProjectRow
{
    /** 1 : so much */
    private const SCALES = [0.1, 100_000.0];
    private const LONGEST = 4000;

    #[Refers(PrintSheet::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $sheet;

    #[ORM\Column(length: 12)]
    private ViewKind $kind = ViewKind::Plan;

    /** that a plan shows, or that a table is of; a table of all storeys has none */
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $storey = null;

    #[Refers(Side::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $side = null;

    /** whose picture is shown */
    #[Refers(Drawing::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    /** mm of paper from the sheet's upper left: of the zero of what is drawn to scale, of anything else its upper left corner */
    #[ORM\Column]
    private float $x = 0.0;

    #[ORM\Column]
    private float $y = 0.0;

    /** 1 : so much */
    #[ORM\Column]
    private float $scale = 100.0;

    /** mm of the model that are shown; all of it while there is no window */
    #[ORM\Column(nullable: true)]
    private ?float $fromX = null;

    #[ORM\Column(nullable: true)]
    private ?float $fromY = null;

    #[ORM\Column(nullable: true)]
    private ?float $toX = null;

    #[ORM\Column(nullable: true)]
    private ?float $toY = null;

    /** mm of paper of a picture or notes */
    #[ORM\Column(nullable: true)]
    private ?float $width = null;

    #[ORM\Column(length: 120)]
    private string $title = '';

    /** of notes, a line each */
    #[ORM\Column(type: 'text')]
    private string $words = '';

    /** what it shows beside, by commas */
    #[ORM\Column(length: 300)]
    private string $shows = '';

    /** of what stands: which way one looks, degrees counter-clockwise from up on the plan, and how far down */
    #[ORM\Column]
    private float $turn = 0.0;

    #[ORM\Column]
    private float $tilt = 0.0;

    public function values(): array
    {
        return [
            'sheet' => $this->sheet->toRfc4122(), 'kind' => $this->kind->value, 'storey' => $this->storey?->toRfc4122(),
            'side' => $this->side?->toRfc4122(), 'drawing' => $this->drawing?->toRfc4122(), 'x' => $this->x, 'y' => $this->y,
            'scale' => $this->scale, 'fromX' => $this->fromX, 'fromY' => $this->fromY, 'toX' => $this->toX, 'toY' => $this->toY,
            'width' => $this->width, 'title' => $this->title, 'words' => $this->words, 'shows' => $this->shows, 'turn' => $this->turn,
            'tilt' => $this->tilt,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->sheet = $values->id('sheet');
        $this->kind = $values->choice('kind', ViewKind::class);
        [$this->storey, $this->side, $this->drawing] = [$values->optionalId('storey'), $values->optionalId('side'), $values->optionalId('drawing')];
        $missing = match ($this->kind) {
            ViewKind::Plan => null === $this->storey ? 'storey' : null,
            ViewKind::Side => null === $this->side ? 'side' : null,
            ViewKind::Picture => null === $this->drawing ? 'drawing' : null,
            default => null,
        };
        if (null !== $missing) {
            throw Refusal::invalid('shows-nothing', "This view shows a $missing: say which.", $values->at($missing));
        }
        [$this->x, $this->y] = [$values->place('x'), $values->place('y')];
        $this->scale = $values->positive('scale');
        if ($this->scale < self::SCALES[0] || $this->scale > self::SCALES[1]) {
            throw UnreadableDocument::outOfRange($values->at('scale'), 'between 0.1 and 100 000: 100 is 1:100');
        }
        [$this->fromX, $this->fromY] = [$values->optionalNumber('fromX'), $values->optionalNumber('fromY')];
        [$this->toX, $this->toY] = [$values->optionalNumber('toX'), $values->optionalNumber('toY')];
        $window = array_filter([$this->fromX, $this->fromY, $this->toX, $this->toY], static fn (?float $v): bool => null !== $v);
        if ([] !== $window && (4 !== \count($window) || $this->toX <= $this->fromX || $this->toY <= $this->fromY)) {
            throw Refusal::invalid('no-window', 'A window runs from its lower left corner to its upper right one: give both, or neither.', $values->at('toX'));
        }
        $this->width = $values->optionalPositive('width', 5000.0);
        $this->title = $values->text('title');
        $this->words = $values->text('words', self::LONGEST);
        $this->shows = implode(',', array_map(static fn (Shows $s): string => $s->value, self::read($values->text('shows', 300), $values->at('shows'))));
        [$this->turn, $this->tilt] = [$values->number('turn'), $values->number('tilt')];
        if ($this->tilt < 0.0 || $this->tilt > 90.0) {
            throw UnreadableDocument::outOfRange($values->at('tilt'), 'between 0° and 90°');
        }
    }

    /** @return array<string, mixed> what a row of a view says that the core has proposed */
    public static function valuesOf(CoreView $view, string $sheet): array
    {
        $of = '' === $view->of ? null : $view->of;

        return [
            'sheet' => $sheet, 'kind' => $view->kind->value,
            'storey' => \in_array($view->kind, [ViewKind::Plan, ViewKind::Rooms, ViewKind::Openings, ViewKind::Enclosures, ViewKind::Ways], true) ? $of : null,
            'side' => ViewKind::Side === $view->kind ? $of : null, 'drawing' => ViewKind::Picture === $view->kind ? $of : null,
            'x' => $view->x, 'y' => $view->y, 'scale' => $view->scale, 'fromX' => $view->window[0] ?? null, 'fromY' => $view->window[1] ?? null,
            'toX' => $view->window[2] ?? null, 'toY' => $view->window[3] ?? null, 'width' => $view->width, 'title' => $view->title,
            'words' => $view->words, 'shows' => implode(',', array_map(static fn (Shows $s): string => $s->value, $view->shows)),
            'turn' => $view->turn, 'tilt' => $view->tilt,
        ];
    }

    /** @return list<Shows> */
    private static function read(string $shows, string $at): array
    {
        $read = [];
        foreach ('' === $shows ? [] : explode(',', $shows) as $one) {
            $read[] = Shows::tryFrom(trim($one)) ?? throw UnreadableDocument::outOfRange($at, implode(', ', array_column(Shows::cases(), 'value')));
        }

        return array_values(array_unique($read, \SORT_REGULAR));
    }

    public function sheet(): Uuid
    {
        return $this->sheet;
    }

    /** @param list<CoreMark> $marks */
    public function withMarks(array $marks): CoreView
    {
        return new CoreView(
            $this->id()->toRfc4122(),
            $this->kind,
            ($this->storey ?? $this->side ?? $this->drawing)?->toRfc4122() ?? '',
            $this->x,
            $this->y,
            $this->scale,
            null === $this->fromX || null === $this->fromY || null === $this->toX || null === $this->toY
                ? null
                : [$this->fromX, $this->fromY, $this->toX, $this->toY],
            $this->width,
            $this->title,
            $this->words,
            self::read($this->shows, 'shows'),
            $this->turn,
            $this->tilt,
            $marks,
        );
    }
}
