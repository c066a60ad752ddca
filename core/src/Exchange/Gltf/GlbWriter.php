<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Gltf;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Bodies\FinishedSurface;
use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Exchange\Gltf\Internal\PatternPicture;
use Plinth\Core\Geometry\Newell;
use Plinth\Core\Plan\Model\Finish;

/**
 * Writes bodies as one binary file of glTF 2.0 (ISO/IEC 12113): a node for each storey, and in it one for each body, named by its kind
 * and id; surfaces with a finish lie a millimetre before them, with what repeats of their pattern as a picture. Metres, y up; single
 * precision, therefore about a place of whole metres that is told in the scene's extras.
 *
 * Source: the glTF 2.0 specification, chapter 4 and section 5; little-endian throughout.
 */
final class GlbWriter
{
    private const FLOAT = 5126;
    private const UNSIGNED = 5125;
    private const VERTICES = 34962;
    private const INDICES = 34963;
    private const MM = 1000.0;
    /** Linear red, green, blue, opacity. */
    private const COLOURS = [
        'wall' => [0.78, 0.76, 0.72, 1.0],
        'railing' => [0.55, 0.53, 0.5, 1.0],
        'column' => [0.7, 0.69, 0.66, 1.0],
        'floor' => [0.62, 0.59, 0.54, 1.0],
        'finish' => [0.5, 0.36, 0.23, 1.0],
        'ceiling' => [0.86, 0.85, 0.83, 1.0],
        'stair' => [0.58, 0.52, 0.44, 1.0],
        'roof' => [0.34, 0.2, 0.16, 1.0],
        'dormer' => [0.5, 0.47, 0.43, 1.0],
        'swept' => [0.83, 0.8, 0.73, 1.0],
        'chimney' => [0.45, 0.25, 0.19, 1.0],
        'frame' => [0.84, 0.84, 0.82, 1.0],
        'leaf' => [0.4, 0.28, 0.18, 1.0],
        'pane' => [0.5, 0.63, 0.68, 0.35],
        'object' => [0.66, 0.6, 0.52, 1.0],
    ];

    /** @var list<array<string, mixed>> */
    private array $meshes = [];
    /** @var list<array<string, mixed>> */
    private array $accessors = [];
    /** @var list<array<string, mixed>> */
    private array $views = [];
    /** @var list<array<string, mixed>> */
    private array $materials = [];
    /** @var list<array<string, mixed>> */
    private array $images = [];
    /** @var array<string, int> kind, or finish → material */
    private array $materialOf = [];
    /** @var \WeakMap<Mesh, int> */
    private \WeakMap $meshOf;
    private string $buffer = '';

    private function __construct(private readonly float $x, private readonly float $y)
    {
        $this->meshOf = new \WeakMap();
    }

    /**
     * @param list<Body> $bodies
     * @param array<string, string> $storeys names by id
     * @param list<string> $remarks what whoever opens it should know, told in the scene's extras
     * @param list<FinishedSurface> $surfaces
     * @param list<Finish> $finishes of them
     */
    public static function write(
        array $bodies,
        array $storeys = [],
        array $remarks = [],
        array $surfaces = [],
        array $finishes = [],
    ): string {
        [$x, $y] = [\INF, \INF];
        foreach ($bodies as $body) {
            [$px, $py] = null === $body->placement ? $body->form->vertices[0] : [$body->placement->x, $body->placement->y];
            [$x, $y] = [min($x, $px), min($y, $py)];
        }
        $writer = new self(self::whole($x), self::whole($y));

        return $writer->file($bodies, $storeys, $remarks, $surfaces, array_column($finishes, null, 'id'));
    }

    /** @return float mm, whole metres */
    private static function whole(float $mm): float
    {
        return is_finite($mm) ? self::MM * floor($mm / self::MM) : 0.0;
    }

    /**
     * @param list<Body> $bodies
     * @param array<string, string> $storeys
     * @param list<string> $remarks
     * @param list<FinishedSurface> $surfaces
     * @param array<string, Finish> $finishes
     */
    private function file(array $bodies, array $storeys, array $remarks, array $surfaces, array $finishes): string
    {
        $nodes = [];
        $of = [];
        foreach ($bodies as $body) {
            $of[$body->storey][] = \count($nodes);
            $nodes[] = $this->node($body);
        }
        foreach ($surfaces as $surface) {
            if ([] !== $surface->places) {
                $of[$surface->storey][] = \count($nodes);
                $nodes[] = ['name' => 'surface '.$surface->id, 'mesh' => $this->surface($surface, $finishes[$surface->finish])];
            }
        }
        $roots = [];
        foreach ($of as $storey => $children) {
            $roots[] = \count($nodes);
            $nodes[] = ['name' => $storeys[$storey] ?? $storey, 'children' => $children];
        }
        $document = [
            'asset' => ['version' => '2.0', 'generator' => 'Zesty Plinth'],
            'scene' => 0,
            'scenes' => [[
                ...([] === $roots ? [] : ['nodes' => $roots]),
                'extras' => ['originMm' => [$this->x, $this->y], ...([] === $remarks ? [] : ['remarks' => $remarks])],
            ]],
            ...([] === $nodes ? [] : [
                'nodes' => $nodes,
                'meshes' => $this->meshes,
                'materials' => $this->materials,
                ...([] === $this->images ? [] : [
                    'images' => $this->images,
                    'textures' => array_map(static fn (int $i): array => ['source' => $i], array_keys($this->images)),
                ]),
                'accessors' => $this->accessors,
                'bufferViews' => $this->views,
                'buffers' => [['byteLength' => \strlen($this->buffer)]],
            ]),
        ];
        $json = json_encode($document, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE);
        $json .= str_repeat(' ', (4 - \strlen($json) % 4) % 4);
        $chunks = pack('VV', \strlen($json), 0x4E4F534A).$json;
        if ('' !== $this->buffer) {
            $chunks .= pack('VV', \strlen($this->buffer), 0x004E4942).$this->buffer;
        }

        return 'glTF'.pack('VV', 2, 12 + \strlen($chunks)).$chunks;
    }

    /** @return array<string, mixed> */
    private function node(Body $body): array
    {
        $node = ['name' => $body->kind->value.' '.$body->id, 'mesh' => $this->mesh($body)];
        $placement = $body->placement;
        if (null === $placement) {
            return $node;
        }
        $half = atan2($placement->sin, $placement->cos) / 2.0;

        return [
            ...$node,
            'translation' => [($placement->x - $this->x) / self::MM, $placement->z / self::MM, -($placement->y - $this->y) / self::MM],
            ...(0.0 === $half ? [] : ['rotation' => [0.0, sin($half), 0.0, cos($half)]]),
        ];
    }

    private function mesh(Body $body): int
    {
        $form = $body->form;
        if (!isset($this->meshOf[$form])) {
            $this->meshOf[$form] = \count($this->meshes);
            $this->meshes[] = [
                'name' => $body->kind->value,
                'primitives' => [$this->primitive($form, null === $body->placement, $this->material($body->kind))],
            ];
        }

        return $this->meshOf[$form];
    }

    /**
     * Corners of each face by themselves, so that light falls on it as on a plane.
     *
     * @return array<string, mixed>
     */
    private function primitive(Mesh $mesh, bool $isInPlace, int $material): array
    {
        [$ox, $oy] = $isInPlace ? [$this->x, $this->y] : [0.0, 0.0];
        [$places, $normals, $indices] = ['', '', ''];
        $count = 0;
        $corners = 0;
        foreach ($mesh->faces as $face) {
            [$nx, $ny, $nz] = $mesh->normal($face);
            $length = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
            $normal = pack('g3', $nx / $length, $nz / $length, -$ny / $length);
            $numbers = [];
            foreach ($mesh->trianglesOf($face) as $triangle) {
                foreach ($triangle as $v) {
                    if (!isset($numbers[$v])) {
                        $numbers[$v] = $count++;
                        [$x, $y, $z] = $mesh->vertices[$v];
                        $places .= pack('g3', ($x - $ox) / self::MM, $z / self::MM, -($y - $oy) / self::MM);
                        $normals .= $normal;
                    }
                    $indices .= pack('V', $numbers[$v]);
                    ++$corners;
                }
            }
        }

        return [
            'attributes' => [
                'POSITION' => $this->accessor($places, self::FLOAT, self::VERTICES, 'VEC3', $count, self::bounds($places)),
                'NORMAL' => $this->accessor($normals, self::FLOAT, self::VERTICES, 'VEC3', $count),
            ],
            'indices' => $this->accessor($indices, self::UNSIGNED, self::INDICES, 'SCALAR', $corners),
            'material' => $material,
        ];
    }

    private function surface(FinishedSurface $surface, Finish $finish): int
    {
        [$width, $height] = $finish->repeat()['size'] ?? [self::MM, self::MM];
        [$places, $normals, $pattern] = ['', '', ''];
        $count = 0;
        foreach (array_chunk($surface->places, 3) as $n => $corners) {
            [$nx, $ny, $nz] = Newell::normal($corners);
            $length = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
            if ($length <= 0.0) {
                continue;
            }
            [$nx, $ny, $nz] = [$nx / $length, $ny / $length, $nz / $length];
            foreach ($corners as $i => [$x, $y, $z]) {
                $places .= pack('g3', ($x + $nx - $this->x) / self::MM, ($z + $nz) / self::MM, -($y + $ny - $this->y) / self::MM);
                $normals .= pack('g3', $nx, $nz, -$ny);
                [$u, $v] = $surface->pattern[3 * $n + $i];
                $pattern .= pack('g2', $u / $width, -$v / $height);
                ++$count;
            }
        }
        $this->meshes[] = ['name' => $finish->name, 'primitives' => [[
            'attributes' => [
                'POSITION' => $this->accessor($places, self::FLOAT, self::VERTICES, 'VEC3', $count, self::bounds($places)),
                'NORMAL' => $this->accessor($normals, self::FLOAT, self::VERTICES, 'VEC3', $count),
                ...null === $finish->repeat() ? [] : [
                    'TEXCOORD_0' => $this->accessor($pattern, self::FLOAT, self::VERTICES, 'VEC2', $count),
                ],
            ],
            'material' => $this->finish($finish),
        ]]];

        return \count($this->meshes) - 1;
    }

    private function finish(Finish $finish): int
    {
        $key = 'finish '.$finish->id;
        if (!isset($this->materialOf[$key])) {
            $colour = array_map(
                // IEC 61966-2-1: pictures and what is typed are not linear, factors are.
                static fn (string $two): float => ($c = hexdec($two) / 255.0) <= 0.04045 ? $c / 12.92 : (($c + 0.055) / 1.055) ** 2.4,
                str_split(substr($finish->colour, 1), 2),
            );
            $this->materialOf[$key] = \count($this->materials);
            $this->materials[] = ['name' => $finish->name, 'pbrMetallicRoughness' => [
                ...null === $finish->repeat()
                    ? ['baseColorFactor' => [...$colour, 1.0]]
                    : ['baseColorTexture' => ['index' => $this->picture(PatternPicture::of($finish))]],
                'metallicFactor' => 0.0,
                'roughnessFactor' => 0.8,
            ]];
        }

        return $this->materialOf[$key];
    }

    private function picture(string $png): int
    {
        $this->views[] = ['buffer' => 0, 'byteOffset' => \strlen($this->buffer), 'byteLength' => \strlen($png)];
        $this->buffer .= $png.str_repeat("\0", (4 - \strlen($png) % 4) % 4);
        $this->images[] = ['bufferView' => \count($this->views) - 1, 'mimeType' => 'image/png'];

        return \count($this->images) - 1;
    }

    /** @return array{min: list<float>, max: list<float>} of places as they are written, not as they were meant */
    private static function bounds(string $places): array
    {
        [$least, $most] = [[\INF, \INF, \INF], [-\INF, -\INF, -\INF]];
        foreach (array_values((array) unpack('g*', $places)) as $i => $at) {
            \assert(\is_float($at));
            [$least[$i % 3], $most[$i % 3]] = [min($least[$i % 3], $at), max($most[$i % 3], $at)];
        }

        return ['min' => $least, 'max' => $most];
    }

    /** @param array<string, mixed> $bounds */
    private function accessor(string $data, int $component, int $target, string $type, int $count, array $bounds = []): int
    {
        $this->views[] = ['buffer' => 0, 'byteOffset' => \strlen($this->buffer), 'byteLength' => \strlen($data), 'target' => $target];
        $this->buffer .= $data;
        $this->accessors[] = [
            'bufferView' => \count($this->views) - 1, 'componentType' => $component, 'count' => $count, 'type' => $type, ...$bounds,
        ];

        return \count($this->accessors) - 1;
    }

    private function material(BodyKind $kind): int
    {
        if (!isset($this->materialOf[$kind->value])) {
            $colour = self::COLOURS[$kind->value];
            $this->materialOf[$kind->value] = \count($this->materials);
            $this->materials[] = [
                'name' => $kind->value,
                'pbrMetallicRoughness' => ['baseColorFactor' => $colour, 'metallicFactor' => 0.0, 'roughnessFactor' => 0.9],
                ...($colour[3] < 1.0 ? ['alphaMode' => 'BLEND'] : []),
            ];
        }

        return $this->materialOf[$kind->value];
    }
}
