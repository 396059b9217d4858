;; The innermost loops over pixels. Each is written in TypeScript too, operation by operation, so that both give the same bits: level,
;; turned and shade in rows.ts, channels and brightness in pixels.ts. Compiled by `npm run loops`; four pixels at a time where they
;; allow it (WebAssembly 2.0, 128-bit vectors).
(module
  ;; From 0 on a sum of noise for each pixel, from 131072 on the pixels, from 196608 on tables: as compiled.ts says.
  (memory (export "memory") 4)

  ;; Both functions are written out: what is called in an innermost loop takes as long as the noise. A name in capitals is a number in
  ;; both lanes; $k counts pixels. Fading is t t t (t (t 6 - 15) + 10). Where a run ends within four pixels, those beyond it add nothing.

  (func (export "level")
    (param $from i32) (param $count i32) (param $start f32) (param $step f32)
    (param $slope f32) (param $height f32) (param $moreSlope f32) (param $moreHeight f32) (param $folded i32)
    (local $i i32) (local $at i32) (local $k v128) (local $x v128) (local $noise v128) (local $COUNT v128)
    (local $START v128) (local $STEP v128) (local $SLOPE v128) (local $HEIGHT v128) (local $MORESLOPE v128) (local $MOREHEIGHT v128)
    (local.set $at (i32.shl (local.get $from) (i32.const 2)))
    (local.set $k (v128.const f32x4 0 1 2 3))
    (local.set $START (f32x4.splat (local.get $start)))
    (local.set $STEP (f32x4.splat (local.get $step)))
    (local.set $SLOPE (f32x4.splat (local.get $slope)))
    (local.set $HEIGHT (f32x4.splat (local.get $height)))
    (local.set $MORESLOPE (f32x4.splat (local.get $moreSlope)))
    (local.set $MOREHEIGHT (f32x4.splat (local.get $moreHeight)))
    (local.set $COUNT (f32x4.splat (f32.convert_i32_s (local.get $count))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_s (local.get $i) (local.get $count)))
        (local.set $x (f32x4.add (local.get $START) (f32x4.mul (local.get $STEP) (local.get $k))))
        (local.set $noise
          (f32x4.add
            (f32x4.add (local.get $HEIGHT) (f32x4.mul (local.get $SLOPE) (local.get $x)))
            (f32x4.mul
              (f32x4.add (local.get $MOREHEIGHT) (f32x4.mul (local.get $MORESLOPE) (local.get $x)))
              (f32x4.mul
            (f32x4.mul (f32x4.mul (local.get $x) (local.get $x)) (local.get $x))
            (f32x4.add
              (f32x4.mul
                (local.get $x)
                (f32x4.sub
                  (f32x4.mul (local.get $x) (v128.const f32x4 6 6 6 6))
                  (v128.const f32x4 15 15 15 15)))
              (v128.const f32x4 10 10 10 10))))))
        (v128.store
          (local.get $at)
          (f32x4.add
            (v128.load (local.get $at))
            (v128.and
              (f32x4.lt (local.get $k) (local.get $COUNT))
              (select (f32x4.abs (local.get $noise)) (local.get $noise) (local.get $folded)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (local.set $k (f32x4.add (local.get $k) (v128.const f32x4 4 4 4 4)))
        (local.set $i (i32.add (local.get $i) (i32.const 4)))
        (br $next))))

  (func (export "turned")
    (param $from i32) (param $count i32) (param $u f32) (param $v f32) (param $c f32) (param $s f32)
    (param $p f32) (param $q f32) (param $r f32) (param $t f32)
    (param $dp f32) (param $dq f32) (param $dr f32) (param $dt f32) (param $folded i32)
    (local $i i32) (local $at i32) (local $k v128) (local $x v128) (local $y v128) (local $across v128) (local $noise v128) (local $COUNT v128)
    (local $U v128) (local $V v128) (local $C v128) (local $S v128) (local $P v128) (local $Q v128) (local $R v128) (local $T v128) (local $DP v128) (local $DQ v128) (local $DR v128) (local $DT v128)
    (local.set $at (i32.shl (local.get $from) (i32.const 2)))
    (local.set $k (v128.const f32x4 0 1 2 3))
    (local.set $U (f32x4.splat (local.get $u)))
    (local.set $V (f32x4.splat (local.get $v)))
    (local.set $C (f32x4.splat (local.get $c)))
    (local.set $S (f32x4.splat (local.get $s)))
    (local.set $P (f32x4.splat (local.get $p)))
    (local.set $Q (f32x4.splat (local.get $q)))
    (local.set $R (f32x4.splat (local.get $r)))
    (local.set $T (f32x4.splat (local.get $t)))
    (local.set $DP (f32x4.splat (local.get $dp)))
    (local.set $DQ (f32x4.splat (local.get $dq)))
    (local.set $DR (f32x4.splat (local.get $dr)))
    (local.set $DT (f32x4.splat (local.get $dt)))
    (local.set $COUNT (f32x4.splat (f32.convert_i32_s (local.get $count))))
    (block $done
      (loop $next
        (br_if $done (i32.ge_s (local.get $i) (local.get $count)))
        (local.set $x (f32x4.add (local.get $U) (f32x4.mul (local.get $C) (local.get $k))))
        (local.set $y (f32x4.add (local.get $V) (f32x4.mul (local.get $S) (local.get $k))))
        (local.set $across (f32x4.mul
            (f32x4.mul (f32x4.mul (local.get $x) (local.get $x)) (local.get $x))
            (f32x4.add
              (f32x4.mul
                (local.get $x)
                (f32x4.sub
                  (f32x4.mul (local.get $x) (v128.const f32x4 6 6 6 6))
                  (v128.const f32x4 15 15 15 15)))
              (v128.const f32x4 10 10 10 10))))
        (local.set $noise
          (f32x4.add
            (f32x4.add
              (f32x4.add (local.get $P) (f32x4.mul (local.get $DP) (local.get $k)))
              (f32x4.mul (f32x4.add (local.get $Q) (f32x4.mul (local.get $DQ) (local.get $k))) (local.get $across)))
            (f32x4.mul
              (f32x4.add
                (f32x4.add (local.get $R) (f32x4.mul (local.get $DR) (local.get $k)))
                (f32x4.mul (f32x4.add (local.get $T) (f32x4.mul (local.get $DT) (local.get $k))) (local.get $across)))
              (f32x4.mul
            (f32x4.mul (f32x4.mul (local.get $y) (local.get $y)) (local.get $y))
            (f32x4.add
              (f32x4.mul
                (local.get $y)
                (f32x4.sub
                  (f32x4.mul (local.get $y) (v128.const f32x4 6 6 6 6))
                  (v128.const f32x4 15 15 15 15)))
              (v128.const f32x4 10 10 10 10))))))
        (v128.store
          (local.get $at)
          (f32x4.add
            (v128.load (local.get $at))
            (v128.and
              (f32x4.lt (local.get $k) (local.get $COUNT))
              (select (f32x4.abs (local.get $noise)) (local.get $noise) (local.get $folded)))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (local.set $k (f32x4.add (local.get $k) (v128.const f32x4 4 4 4 4)))
        (local.set $i (i32.add (local.get $i) (i32.const 4)))
        (br $next))))

  ;; Pixels in the shades of their sums, as opaque as they are and as the shades are: four by four, the last of them beyond the row.
  (func (export "shade") (param $count i32) (param $start f32) (param $slope f32)
    (local $at i32) (local $end i32) (local $pixels v128) (local $alpha v128) (local $index v128) (local $shade v128)
    (local $START v128) (local $SLOPE v128)
    (local.set $START (f32x4.splat (local.get $start)))
    (local.set $SLOPE (f32x4.splat (local.get $slope)))
    (local.set $end (i32.shl (local.get $count) (i32.const 2)))
    (block $done
      (loop $next
        (br_if $done (i32.ge_s (local.get $at) (local.get $end)))
        (local.set $pixels (v128.load offset=131072 (local.get $at)))
        (local.set $alpha (i32x4.shr_u (local.get $pixels) (i32.const 24)))
        (if (v128.any_true (local.get $alpha))
          (then
            ;; From 0 to 255, rounded, times the four bytes of each.
            (local.set $index
              (i32x4.shl
                (i32x4.trunc_sat_f32x4_s
                  (f32x4.add
                    (f32x4.pmin
                      (v128.const f32x4 255 255 255 255)
                      (f32x4.pmax
                        (v128.const f32x4 0 0 0 0)
                        (f32x4.add
                          (local.get $START)
                          (f32x4.mul (local.get $SLOPE) (v128.load (local.get $at))))))
                    (v128.const f32x4 0.5 0.5 0.5 0.5)))
                (i32.const 2)))
            (local.set $shade (v128.load32_zero offset=196608 (i32x4.extract_lane 0 (local.get $index))))
            (local.set $shade
              (v128.load32_lane offset=196608 1 (i32x4.extract_lane 1 (local.get $index)) (local.get $shade)))
            (local.set $shade
              (v128.load32_lane offset=196608 2 (i32x4.extract_lane 2 (local.get $index)) (local.get $shade)))
            (local.set $shade
              (v128.load32_lane offset=196608 3 (i32x4.extract_lane 3 (local.get $index)) (local.get $shade)))
            ;; The product of both alphas over 255, rounded: (n + 128 + (n + 128 >> 8)) >> 8. What is transparent stays as it is.
            (local.set $index
              (i32x4.add
                (i32x4.mul (local.get $alpha) (i32x4.shr_u (local.get $shade) (i32.const 24)))
                (v128.const i32x4 128 128 128 128)))
            (v128.store offset=131072
              (local.get $at)
              (v128.bitselect
                (v128.or
                  (v128.and (local.get $shade) (v128.const i32x4 0xffffff 0xffffff 0xffffff 0xffffff))
                  (i32x4.shl
                    (i32x4.shr_u
                      (i32x4.add (local.get $index) (i32x4.shr_u (local.get $index) (i32.const 8)))
                      (i32.const 8))
                    (i32.const 24)))
                (local.get $pixels)
                (i32x4.ne (local.get $alpha) (v128.const i32x4 0 0 0 0))))))
        (local.set $at (i32.add (local.get $at) (i32.const 16)))
        (br $next))))

  ;; Red, green and blue by tables of what each of them becomes in whole pixels.
  (func (export "channels") (param $count i32) (result i32)
    (local $at i32) (local $end i32) (local $pixel i32) (local $all i32)
    (local.set $end (i32.shl (local.get $count) (i32.const 2)))
    (local.set $all (i32.const -1))
    (block $done
      (loop $next
        (br_if $done (i32.ge_s (local.get $at) (local.get $end)))
        (local.set $pixel (i32.load offset=131072 (local.get $at)))
        (local.set $all (i32.and (local.get $all) (local.get $pixel)))
        (i32.store offset=131072
          (local.get $at)
          (i32.or
            (i32.or
              (i32.load offset=196608 (i32.shl (i32.and (local.get $pixel) (i32.const 255)) (i32.const 2)))
              (i32.load offset=197632 (i32.and (i32.shr_u (local.get $pixel) (i32.const 6)) (i32.const 1020))))
            (i32.or
              (i32.load offset=198656 (i32.and (i32.shr_u (local.get $pixel) (i32.const 14)) (i32.const 1020)))
              (i32.and (local.get $pixel) (i32.const 0xff000000)))))
        (local.set $at (i32.add (local.get $at) (i32.const 4)))
        (br $next)))
    (local.get $all))

  ;; Colours by how bright they are, in parts of 65536.
  (func (export "brightness") (param $count i32) (result i32)
    (local $at i32) (local $end i32) (local $pixel i32) (local $all i32)
    (local.set $end (i32.shl (local.get $count) (i32.const 2)))
    (local.set $all (i32.const -1))
    (block $done
      (loop $next
        (br_if $done (i32.ge_s (local.get $at) (local.get $end)))
        (local.set $pixel (i32.load offset=131072 (local.get $at)))
        (local.set $all (i32.and (local.get $all) (local.get $pixel)))
        (i32.store offset=131072
          (local.get $at)
          (i32.or
            (i32.load offset=196608
              (i32.shl
                (i32.shr_u
                  (i32.add
                    (i32.add
                      (i32.mul (i32.const 13933) (i32.and (local.get $pixel) (i32.const 255)))
                      (i32.mul
                        (i32.const 46871)
                        (i32.and (i32.shr_u (local.get $pixel) (i32.const 8)) (i32.const 255))))
                    (i32.add
                      (i32.mul
                        (i32.const 4732)
                        (i32.and (i32.shr_u (local.get $pixel) (i32.const 16)) (i32.const 255)))
                      (i32.const 32768)))
                  (i32.const 16))
                (i32.const 2)))
            (i32.and (local.get $pixel) (i32.const 0xff000000))))
        (local.set $at (i32.add (local.get $at) (i32.const 4)))
        (br $next)))
    (local.get $all))
)
